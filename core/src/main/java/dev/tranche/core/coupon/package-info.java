/** Small test prints for the printer at hand, each of which measures something: their blocks, toolpaths and what they tell. */
package dev.tranche.core.coupon;
