/** What happens beside the machine: the rehearsal of what is handed off. */
package dev.tranche.app.run;
