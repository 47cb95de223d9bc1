package dev.tranche.app.history;

import java.time.Instant;

/**
 * A point of a history.
 *
 * @param number from 0, the beginning
 * @param edition that the edit made; no other edit ever makes it
 * @param label what the edit did that led there
 * @param at when it was made; null of what earlier versions made
 */
public record Past(int number, long edition, String label, Instant at) {}
