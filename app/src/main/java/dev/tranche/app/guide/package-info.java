/** The guided start: from a house with nothing in it to a first file with swaps, each step with why it comes. */
package dev.tranche.app.guide;
