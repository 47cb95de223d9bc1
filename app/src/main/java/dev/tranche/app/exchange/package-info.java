/**
 * What comes in and goes out whole: model files that begin a plan, and plan files.
 *
 * <p>{@link dev.tranche.app.exchange.ModelImport} keeps what is given, {@link dev.tranche.app.exchange.Choosing} offers what stands
 * apart, {@code PlanMaker} makes a plan of it, {@code FileColours} takes over the
 * colours of its parts and {@code Coats} what is painted on them; {@code PlanFileReader} and {@link
 * dev.tranche.app.exchange.PlanFileWriter} carry plans from house to house.
 */
package dev.tranche.app.exchange;
