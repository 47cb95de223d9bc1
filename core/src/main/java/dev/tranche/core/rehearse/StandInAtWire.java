package dev.tranche.core.rehearse;

import dev.tranche.core.gcode.GcodeScanner;
import java.io.BufferedOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * A {@link StandIn} at the end of a wire: it takes lines as they come and answers them, as fast as it can or at a pace, while
 * hands work beside it. One thread runs it; others may be its hands.
 */
public final class StandInAtWire {
    /** A firmware that is busy says so as often, ms (common practice). */
    private static final long BUSY = 2_000;

    private static final byte[] OK = {'o', 'k', '\n'};

    private final StandIn printer;
    private final GcodeScanner lines;
    private final OutputStream answers;
    private final StandIn.Wire wire = new StandIn.Wire() {
        @Override
        public void ok() throws IOException {
            answers.write(OK);
        }

        @Override
        public void say(String line) throws IOException {
            answers.write((line + "\n").getBytes(StandardCharsets.ISO_8859_1));
        }
    };
    /** Seconds of the print a second; 0 for as fast as it can. */
    private double pace;

    private double paceFrom;
    private long paceSince;
    /** Lines it may still take while it is held. */
    private long steps = Long.MAX_VALUE;

    private boolean over;
    /** Whether somebody has asked for the line at hand, which is read in the next one's turn: lines arrive beside the hands. */
    private boolean asked = true;

    private String atHand = "";

    public StandInAtWire(StandIn printer, InputStream lines, OutputStream answers) {
        this.printer = printer;
        this.answers = new BufferedOutputStream(answers, 1 << 14);
        this.lines = new GcodeScanner(new Prompt(lines));
    }

    /** Answers go out before it waits for more lines. */
    private final class Prompt extends FilterInputStream {
        Prompt(InputStream in) {
            super(in);
        }

        @Override
        public int read(byte[] b, int off, int len) throws IOException {
            synchronized (StandInAtWire.this) {
                answers.flush();
            }
            return super.read(b, off, len);
        }
    }

    /** Takes lines until there are no more, or its power fails. */
    public void run() throws IOException, InterruptedException {
        try {
            while (lines.next()) {
                if (!take()) {
                    return;
                }
            }
        } finally {
            synchronized (this) {
                over = true;
                answers.flush();
            }
        }
    }

    private synchronized boolean take() throws IOException, InterruptedException {
        while (steps == 0 && !over) {
            answers.flush();
            wait(BUSY);
        }
        steps -= steps == Long.MAX_VALUE ? 0 : 1;
        printer.take(lines, wire);
        if (asked || printer.isWaiting()) {
            asked = printer.isWaiting();
            atHand = new String(lines.code(), StandardCharsets.ISO_8859_1);
        }
        while (printer.isWaiting() && !over) {
            answers.flush();
            wait(BUSY);
            if (printer.isWaiting()) {
                wire.say("echo:busy: paused for user");
            }
        }
        if (pace > 0) {
            keepPace();
        }
        return !printer.isDark() && !over;
    }

    private void keepPace() throws IOException, InterruptedException {
        while (pace > 0 && !over) {
            double ahead = (printer.secondsSoFar() - paceFrom) / pace - (System.nanoTime() - paceSince) / 1e9;
            if (ahead <= 0.002) {
                return;
            }
            answers.flush();
            wait(Math.min(BUSY, (long) Math.ceil(ahead * 1000)));
        }
    }

    /**
     * As {@link StandIn#hand}; besides {@code pace 60} seconds of the print a second, 0 for as fast as it can; {@code hold}, and
     * {@code step 1} line, {@code go-on}; {@code off} ends it; {@code where} is answered with
     * {@link StandIn#where} and the line at hand.
     */
    public synchronized String hand(String does) throws IOException {
        String[] words = does.strip().toLowerCase(Locale.ROOT).split(" ");
        String answer = "done";
        try {
            switch (words[0]) {
                case "pace" -> {
                    pace = Math.max(0, Double.parseDouble(words[1]));
                    paceFrom = printer.secondsSoFar();
                    paceSince = System.nanoTime();
                }
                case "hold" -> steps = 0;
                case "step" -> steps = Math.max(1, Long.parseLong(words[1]));
                case "go-on" -> steps = Long.MAX_VALUE;
                case "off" -> over = true;
                case "where" -> {
                    answer = "where " + printer.where() + " " + atHand;
                    asked = true;
                }
                default -> answer = printer.hand(does, wire);
            }
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            answer = "cannot: a number is missing";
        }
        answers.flush();
        notifyAll();
        return answer;
    }
}
