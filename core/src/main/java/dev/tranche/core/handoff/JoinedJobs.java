package dev.tranche.core.handoff;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.RawLines;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Jobs that were cut from one file, joined again: the file they were cut from, but for what stops at the seams, which is written
 * into it anew.
 */
public final class JoinedJobs {
    /** Jobs that were cut before the place was written into them have none. */
    private static final Pattern MARK =
            Pattern.compile("([1-9]\\d{0,3}) of ([1-9]\\d{0,3}) (begins|ends)((?: at byte \\d+ of \\d+)?)");

    private static final byte[] START = BlockStamp.JOB.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ADDED = BlockStamp.ADDED.getBytes(StandardCharsets.US_ASCII);

    private JoinedJobs() {}

    /** A file that can be opened as often as it is read. */
    public interface File {
        InputStream open() throws IOException;
    }

    /** Which job a file is; 0 if it is none. */
    private record Place(int number, int of) {}

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
        String seam = "";
        for (int number = 1; number <= all; number++) {
            seam = copy(jobs.get(number), number, number == all, seam, out);
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

    /**
     * Without the start of all but the first and the end of all but the last.
     *
     * @param seam where the job before ends, as its mark has it
     * @return where this one does
     */
    private static String copy(File file, int number, boolean last, String seam, OutputStream out) throws IOException {
        String end = "";
        boolean follows = number == 1;
        try (RawLines lines = new RawLines(file.open())) {
            boolean ours = number == 1;
            boolean added = false;
            while (lines.next()) {
                Optional<Matcher> mark = mark(lines);
                // What joins a job to its start and its end stands right after a mark.
                added = mark.isPresent() || added && lines.endsWith(ADDED);
                if (mark.isPresent()) {
                    boolean begins = mark.get().group(3).equals("begins");
                    follows |= begins && mark.get().group(4).equals(seam);
                    end = mark.get().group(4);
                    ours = begins || last;
                } else if (ours && !added) {
                    lines.writeTo(out, 0);
                }
            }
        }
        if (!follows) {
            throw Refusal.of(
                    "Job %d does not begin where job %d ends: they are of different prints, or of one print cut at other layers; give the jobs that were made together.",
                    number, number - 1);
        }
        return end;
    }

    private static Place place(File file) throws IOException {
        try (RawLines lines = new RawLines(file.open())) {
            while (lines.next()) {
                Optional<Matcher> mark = mark(lines);
                if (mark.isPresent()) {
                    return new Place(
                            Integer.parseInt(mark.get().group(1)),
                            Integer.parseInt(mark.get().group(2)));
                }
            }
        }
        return new Place(0, 0);
    }

    private static Optional<Matcher> mark(RawLines lines) {
        if (!lines.startsWith(START)) {
            return Optional.empty();
        }
        return Optional.of(MARK.matcher(lines.textAfter(START.length))).filter(Matcher::matches);
    }
}
