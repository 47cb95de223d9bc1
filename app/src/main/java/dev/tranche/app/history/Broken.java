package dev.tranche.app.history;

import java.util.Optional;

/**
 * One plan or printer that cannot be shown as it is: its page says why, and offers to take the last change back or to
 * put the whole thing away. Nothing else is the worse for it.
 */
public class Broken extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final String what;
    private final String id;
    private final long edition;
    private final transient Optional<String> undo;

    /**
     * @param what in a sentence: plan, printer
     * @param sentence what is wrong with it
     * @param edition that is broken
     * @param undo what undo would take back
     */
    public Broken(String what, String id, String sentence, long edition, Optional<String> undo) {
        super(sentence, null, false, true);
        this.what = what;
        this.id = id;
        this.edition = edition;
        this.undo = undo;
    }

    public String what() {
        return what;
    }

    public String id() {
        return id;
    }

    public long edition() {
        return edition;
    }

    public Optional<String> undo() {
        return undo;
    }
}
