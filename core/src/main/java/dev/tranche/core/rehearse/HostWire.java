package dev.tranche.core.rehearse;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * A host's end of the wire to a printer: numbers lines and adds their sums, has some hundreds on their way at a time, and sends
 * again what did not arrive as it was sent. Not for two threads.
 */
final class HostWire {
    /** Lines on their way; what is buffered of them and their answers stays below what a socket holds. */
    static final int WINDOW = 256;

    private static final int LONGEST_ANSWER = 1 << 16;

    private final OutputStream out;
    private final InputStream answers;
    private final Listener listener;
    private final byte[][] onTheirWay = new byte[WINDOW][];
    private long sent;
    private long done;
    private boolean closed;
    private byte[] answer = new byte[256];

    /** Who is told what the printer answers. */
    interface Listener {
        /** The oldest line on its way is done. */
        void done();

        /** Anything else than that. */
        void says(String answer) throws IOException;

        /** A line, and those after it, went again. */
        void sentAgain();
    }

    HostWire(Device device, Listener listener) {
        this.out = new BufferedOutputStream(device.lines(), 1 << 15);
        this.answers = new BufferedInputStream(device.answers(), 1 << 15);
        this.listener = listener;
    }

    /** How many lines were sent, and how many of them are done. */
    long sent() {
        return sent;
    }

    long done() {
        return done;
    }

    /** Where in a ring of {@link #WINDOW} the line that is sent next has its place, and the one that is done next. */
    int next() {
        return (int) (sent % WINDOW);
    }

    int oldest() {
        return (int) (done % WINDOW);
    }

    /** No more is sent, and no more is waited for. */
    void close() {
        closed = true;
    }

    boolean isClosed() {
        return closed;
    }

    /** Waits for answers where too many lines are on their way. */
    void makeRoom() throws IOException {
        if (sent - done == WINDOW) {
            out.flush();
            while (!closed && sent - done > WINDOW / 2) {
                listen();
            }
        }
    }

    /** Sends a line, for which there is room. */
    void post(byte[] code) throws IOException {
        byte[] line = numbered(sent + 1, code);
        onTheirWay[next()] = line;
        sent++;
        out.write(line);
    }

    /** Waits until all are done. */
    void drain() throws IOException {
        out.flush();
        while (!closed && sent > done) {
            listen();
        }
    }

    private static byte[] numbered(long number, byte[] code) {
        byte[] digits = Long.toString(number).getBytes(StandardCharsets.US_ASCII);
        byte[] line = new byte[digits.length + code.length + 7];
        int at = 0;
        line[at++] = 'N';
        for (byte d : digits) {
            line[at++] = d;
        }
        line[at++] = ' ';
        System.arraycopy(code, 0, line, at, code.length);
        at += code.length;
        int sum = 0;
        for (int i = 0; i < at; i++) {
            sum ^= line[i];
        }
        line[at++] = '*';
        for (byte d : Integer.toString(sum & 0xFF).getBytes(StandardCharsets.US_ASCII)) {
            line[at++] = d;
        }
        line[at++] = '\n';
        return Arrays.copyOf(line, at);
    }

    /** Takes one answer. */
    private void listen() throws IOException {
        int length = read();
        if (isOk(length)) {
            done++;
            listener.done();
            return;
        }
        String said = new String(answer, 0, length, StandardCharsets.ISO_8859_1);
        try {
            if (said.startsWith("Resend:")) {
                resend(Long.parseLong(said.substring(7).strip()));
            } else {
                listener.says(said);
            }
        } catch (NumberFormatException | IndexOutOfBoundsException e) {
            throw noAnswer(said);
        }
    }

    static Refusal noAnswer(String said) {
        return Refusal.of(
                "The printer says “%s”, which is no answer; look at what is at the other end.", Words.quoted(said));
    }

    private boolean isOk(int length) {
        return length == 2 && answer[0] == 'o' && answer[1] == 'k';
    }

    private int read() throws IOException {
        int length = 0;
        for (int c = answers.read(); c != '\n'; c = answers.read()) {
            if (c < 0) {
                throw new Refusal("The printer does not answer any more; start the rehearsal again.");
            }
            if (length == LONGEST_ANSWER) {
                throw new Refusal(
                        "The printer says more than 65 000 letters without an end; look at what is at the other end.");
            }
            if (length == answer.length) {
                answer = Arrays.copyOf(answer, 2 * length);
            }
            if (c != '\r') {
                answer[length++] = (byte) c;
            }
        }
        return length;
    }

    /** The line with that number did not arrive as it was sent: it, and all after it, go again. */
    private void resend(long number) throws IOException {
        if (number <= done || number > sent) {
            throw Refusal.of("The printer asks for line %d, which is not on its way; look at the connection.", number);
        }
        listener.sentAgain();
        // It answers each of those that it refuses.
        for (long refused = sent - (number - 1); refused > 0; ) {
            refused -= isOk(read()) ? 1 : 0;
        }
        for (long n = number; n <= sent; n++) {
            out.write(onTheirWay[(int) ((n - 1) % WINDOW)]);
        }
        out.flush();
    }
}
