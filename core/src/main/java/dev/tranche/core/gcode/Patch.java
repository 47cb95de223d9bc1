package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Block;
import dev.tranche.core.speech.Progress;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Puts blocks of lines into a G-code file and takes them out again.
 *
 * <p>A block begins and ends with a comment that names its plan, so writing again replaces and removing leaves
 * the original, byte for byte. All of Tranche's blocks in the file go, whichever plan wrote them: two plans' swaps
 * in one file could only be a mistake.
 */
public final class Patch {
    private static final int CHUNK = 1 << 16;

    private final SlicedFile file;
    private final List<Edit> edits = new ArrayList<>();
    private final List<Insertion> insertions = new ArrayList<>();

    /** At one place what ends a block comes first; a line that is taken out is the last of those that begin one. */
    private enum Rank {
        END,
        BEGIN,
        TAKE,
        REMOVE
    }

    private record Edit(long offset, Rank rank, long removed, byte[] added) {}

    private Patch(SlicedFile file) {
        this.file = file;
        for (Block block : file.blocks()) {
            long from = block.from();
            for (SlicedFile.Span kept : block.kept()) {
                remove(from, kept.from());
                from = kept.to();
            }
            remove(from, block.to());
        }
    }

    private void remove(long from, long to) {
        edits.add(new Edit(from, Rank.REMOVE, to - from, new byte[0]));
    }

    /** A patch that takes every block out. */
    public static Patch removing(SlicedFile file) {
        return new Patch(file);
    }

    /** A patch that takes every block out and puts {@code insertions} in. */
    public static Patch writing(SlicedFile file, List<Insertion> insertions) {
        Patch patch = new Patch(file);
        patch.insertions.addAll(insertions);
        patch.insertions.sort(Comparator.comparingLong(Insertion::offset));
        for (Insertion insertion : insertions) {
            String ending = file.crlf() ? "\r\n" : "\n";
            String begin = insertion.begin(ending);
            String end = insertion.stamp().end() + ending;
            if (insertion.took().isEmpty()) {
                patch.edits.add(new Edit(insertion.offset(), Rank.BEGIN, 0, ascii(begin + end)));
            } else {
                patch.edits.add(new Edit(insertion.offset(), Rank.TAKE, 0, ascii(begin + BlockStamp.TOOK)));
                patch.edits.add(new Edit(insertion.took().get().to(), Rank.END, 0, ascii(end)));
            }
        }
        return patch;
    }

    /** What is put in and taken out, in the order of the file; blocks that go are not among it. */
    public List<Insertion> insertions() {
        return List.copyOf(insertions);
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    /**
     * Lines for one place in a file.
     *
     * @param offset of the byte before which they go; the beginning of a line
     * @param line that begins there, from 1
     * @param stamp what marks them as Tranche's
     * @param lines without endings
     * @param took the line that stands there and is taken out, if one is
     */
    public record Insertion(
            long offset, long line, BlockStamp stamp, List<String> lines, Optional<SlicedFile.Span> took) {
        public Insertion {
            lines = List.copyOf(lines);
            for (String text : lines) {
                if (text.indexOf(0x0A) >= 0 || text.indexOf(0x0D) >= 0) {
                    throw new IllegalArgumentException("a line of G-code holds no line break: " + text);
                }
            }
        }

        public Insertion(SlicedLayer.Door door, BlockStamp stamp, List<String> lines) {
            this(door.offset(), door.line(), stamp, lines, Optional.empty());
        }

        private String begin(String ending) {
            StringBuilder text = new StringBuilder(stamp.begin()).append(ending);
            // What the owner's own lines say must not pass for a mark.
            lines.forEach(
                    l -> text.append(BlockStamp.isMark(l) ? ";" : "").append(l).append(ending));
            return text.toString();
        }
    }

    /**
     * Copies {@code original} with the edits made, in constant memory.
     *
     * @param original the bytes the file was surveyed from
     */
    public void copy(InputStream original, OutputStream out, Progress progress) throws IOException {
        copy(original, new SlicedFile.Span(0, file.size()), out, progress);
        out.flush();
    }

    /**
     * Copies a part of a file with the edits made in it.
     *
     * @param original the file's bytes from the beginning of {@code part} on
     */
    public void copy(InputStream original, SlicedFile.Span part, OutputStream out, Progress progress)
            throws IOException {
        edits.sort(Comparator.comparingLong(Edit::offset).thenComparing(Edit::rank));
        byte[] chunk = new byte[CHUNK];
        long at = part.from();
        for (Edit edit : edits) {
            if (isIn(edit, part)) {
                at = pass(original, out, chunk, at, edit.offset(), progress);
                out.write(edit.added());
                original.skipNBytes(edit.removed());
                at += edit.removed();
            }
        }
        pass(original, out, chunk, at, part.to(), progress);
    }

    /** What ends at the end of a part is of it; what begins there is not, but at the end of the file. */
    private boolean isIn(Edit edit, SlicedFile.Span part) {
        if (edit.rank() == Rank.END) {
            return edit.offset() > part.from() && edit.offset() <= part.to();
        }
        boolean last = part.to() == file.size();
        return edit.offset() >= part.from() && (edit.offset() < part.to() || last && edit.offset() == part.to());
    }

    private long pass(InputStream in, OutputStream out, byte[] chunk, long from, long to, Progress progress)
            throws IOException {
        long at = from;
        while (at < to) {
            int read = in.read(chunk, 0, (int) Math.min(chunk.length, to - at));
            if (read < 0) {
                throw new EOFException("the file became shorter while it was copied");
            }
            out.write(chunk, 0, read);
            at += read;
            progress.at(at, file.size());
        }
        return at;
    }

    /** The patched file as bytes, for files known to be small. */
    public byte[] applyTo(byte[] original) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(original.length + 4096);
        copy(new java.io.ByteArrayInputStream(original), out, Progress.UNHEARD);
        return out.toByteArray();
    }
}
