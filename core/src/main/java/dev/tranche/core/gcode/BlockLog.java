package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Block;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What Tranche wrote into a file earlier, as it is being read. */
final class BlockLog {
    /** Marks are longer than this. */
    private static final int SHORT = 15;

    private final List<Block> blocks = new ArrayList<>();
    /** Of the block that is open. */
    private List<Span> kept = new ArrayList<>();

    private long from;
    private BlockStamp open;
    private int pieces;

    /** Whether the lines are Tranche's. */
    boolean isOpen() {
        return open != null;
    }

    /** A line of the file that the open block has taken out. */
    void takes(GcodeScanner line) {
        kept.add(new Span(line.offset(), line.end()));
    }

    /**
     * A line that is a comment.
     *
     * @return whether it is nobody's but Tranche's
     * @throws Refusal if a mark without its other tells that lines are lost
     */
    boolean takesComment(GcodeScanner line) {
        if (open != null) {
            if (line.beginsWithComment() && BlockStamp.isMark(line.comment())) {
                end(line);
            }
            return true;
        }
        return isLikeAMark(line) && begins(line);
    }

    private void end(GcodeScanner line) {
        if (!open.endsWith(line.comment())) {
            throw Refusal.of(
                    "Line %d of the G-code is “%s”, and the lines that Tranche put in before it (%s %d) have not ended; use an undamaged copy of the file.",
                    line.line(), Words.quoted(line.comment()), open.what().code(), open.number());
        }
        blocks.add(new Block(from, line.end(), open, kept));
        kept = new ArrayList<>();
        open = null;
    }

    /** Told without making a string of each comment. */
    private static boolean isLikeAMark(GcodeScanner line) {
        byte[] bytes = line.buffer();
        int at = line.commentStart();
        return line.beginsWithComment() && line.lineEnd() - at > SHORT && bytes[at + 2] == 't' && bytes[at + 3] == 'r';
    }

    private boolean begins(GcodeScanner line) {
        String comment = line.comment();
        Optional<BlockStamp> stamp = BlockStamp.beginning(comment);
        if (stamp.isPresent()) {
            open = stamp.get();
            from = line.offset();
            return true;
        }
        if (BlockStamp.isEnd(comment)) {
            throw Refusal.of(
                    "Line %d of the G-code is “%s”, and nothing that Tranche put in begins before it; use an undamaged copy of the file.",
                    line.line(), Words.quoted(comment));
        }
        if (BlockStamp.isPiece(comment)) {
            pieces++;
            return true;
        }
        return false;
    }

    /** @throws Refusal if the file has ended within a block */
    void requireClosed() {
        if (open != null) {
            throw Refusal.of(
                    "The file ends inside lines that Tranche put in (%s %d); use an undamaged copy of it.",
                    open.what().code(), open.number());
        }
    }

    List<Block> blocks() {
        return blocks;
    }

    /** Marks of pieces that Tranche has put into another order. */
    int pieces() {
        return pieces;
    }
}
