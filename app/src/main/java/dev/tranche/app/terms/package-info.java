/** What words mean, told where they stand. */
package dev.tranche.app.terms;
