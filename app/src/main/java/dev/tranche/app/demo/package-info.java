/**
 * Fernhollow, an allotment society preparing its open day: shapes made by code, a stand-in for a slicing program, and
 * what a first start begins with. Nothing else depends on this package.
 */
package dev.tranche.app.demo;
