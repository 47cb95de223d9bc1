package dev.tranche.core.handoff;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Jobs that were cut from one file, joined again: the file they were cut from, but for what stops at the seams, which is written
 * into it anew.
 */
public final class JoinedJobs {
    private static final Pattern MARK =
            Pattern.compile(Pattern.quote(BlockStamp.JOB) + "([1-9]\\d{0,3}) of ([1-9]\\d{0,3}) (begins|ends)\\s*");
    private static final byte[] START = BlockStamp.JOB.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ADDED = BlockStamp.ADDED.getBytes(StandardCharsets.US_ASCII);
    private static final int LONGEST_LINE = 1 << 20;

    private JoinedJobs() {}

    /** A file that can be opened as often as it is read. */
    public interface File {
        InputStream open() throws IOException;
    }

    /** Which job a file is; 0 if it is none. */
    private record Place(int number, int of) {}

    /** Whether a file is one of several jobs. */
    public static boolean isJob(File file) throws IOException {
        return place(file).number() > 0;
    }

    /**
     * @param files in any order
     * @throws Refusal if they are not all the jobs of one print
     */
    public static void copy(List<File> files, OutputStream out) throws IOException {
        TreeMap<Integer, File> jobs = new TreeMap<>();
        int all = 0;
        for (File file : files) {
            Place place = place(file);
            if (place.number() == 0) {
                throw new Refusal(
                        "One of these files is no job that was cut here; give all jobs of one print, or one sliced file.");
            }
            if (all != 0 && all != place.of() || jobs.put(place.number(), file) != null) {
                throw new Refusal("These are jobs of different prints; give each job of one print once.");
            }
            all = place.of();
        }
        if (jobs.size() != all) {
            throw Refusal.of(
                    "These are %d of %d jobs: %s missing; give them all at once.",
                    jobs.size(), all, missing(jobs, all));
        }
        for (int number = 1; number <= all; number++) {
            copy(jobs.get(number), number == 1, number == all, out);
        }
    }

    private static String missing(TreeMap<Integer, File> jobs, int all) {
        List<String> missing = new ArrayList<>();
        for (int number = 1; number <= all; number++) {
            if (!jobs.containsKey(number)) {
                missing.add(Integer.toString(number));
            }
        }
        return String.join(", ", missing) + (missing.size() == 1 ? " is" : " are");
    }

    /** Without the start of all but the first and the end of all but the last. */
    private static void copy(File file, boolean first, boolean last, OutputStream out) throws IOException {
        try (Lines lines = new Lines(file.open())) {
            boolean ours = first;
            while (lines.next()) {
                Matcher mark = lines.mark();
                if (mark == null) {
                    if (ours && !lines.added()) {
                        lines.writeTo(out);
                    }
                } else {
                    ours = mark.group(3).equals("begins") || last;
                }
            }
        }
    }

    private static Place place(File file) throws IOException {
        try (Lines lines = new Lines(file.open())) {
            while (lines.next()) {
                Matcher mark = lines.mark();
                if (mark != null) {
                    return new Place(Integer.parseInt(mark.group(1)), Integer.parseInt(mark.group(2)));
                }
            }
        }
        return new Place(0, 0);
    }

    /** Lines of a file with their endings. */
    private static final class Lines implements AutoCloseable {
        private final InputStream in;
        private final byte[] line = new byte[LONGEST_LINE];
        private int length;
        private boolean inJoint;

        Lines(InputStream in) {
            this.in = new BufferedInputStream(in, 1 << 16);
        }

        boolean next() throws IOException {
            length = 0;
            int b;
            while (length < LONGEST_LINE && (b = in.read()) >= 0) {
                line[length++] = (byte) b;
                if (b == '\n') {
                    break;
                }
            }
            return length > 0;
        }

        Matcher mark() {
            boolean may = length > START.length && Arrays.equals(line, 0, START.length, START, 0, START.length);
            if (!may) {
                return null;
            }
            Matcher m = MARK.matcher(new String(line, 0, length, StandardCharsets.US_ASCII));
            boolean is = m.matches();
            inJoint |= is;
            return is ? m : null;
        }

        /** Whether it was added right after a mark. */
        boolean added() {
            int end = length;
            while (end > 0 && (line[end - 1] == '\n' || line[end - 1] == '\r')) {
                end--;
            }
            inJoint &= end >= ADDED.length && Arrays.equals(line, end - ADDED.length, end, ADDED, 0, ADDED.length);
            return inJoint;
        }

        void writeTo(OutputStream out) throws IOException {
            out.write(line, 0, length);
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
    }
}
