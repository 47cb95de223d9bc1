/** What holds for every plan: currency, the price of current, when nobody is at the machine, and where it stands. */
package dev.tranche.app.settings;
