/** A stored plan brought to life: its model cut, its file surveyed, its ledger and findings computed by the core. */
package dev.tranche.app.work;
