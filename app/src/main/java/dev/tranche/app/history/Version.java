package dev.tranche.app.history;

import java.util.Optional;

/**
 * Something as it is now.
 *
 * @param edition goes up with every edit, undo and redo
 * @param undo what undo would take back, {@code redo} what redo would do again
 */
public record Version<T>(T content, long edition, Optional<String> undo, Optional<String> redo) {}
