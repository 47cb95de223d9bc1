/** Coupons: small test prints made for a printer, and what is read off them. */
package dev.tranche.app.coupons;
