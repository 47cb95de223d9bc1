package dev.tranche.core.format;

import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The container of a PLY mesh: what its header says comes, and the numbers one after the other, in words or in bytes.
 *
 * <p>Source: G. Turk, "The PLY Polygon File Format" (Stanford University, 1994), from memory.
 */
final class PlyFile {
    private static final int LONGEST_LINE = 4096;
    private static final int MOST_LINES = 4096;
    private static final int LONGEST_NUMBER = 64;

    private enum Form {
        WORDS,
        LITTLE_ENDIAN,
        BIG_ENDIAN
    }

    /** Kinds of numbers, by both names that are in use. */
    enum Type {
        INT8(1, "char"),
        UINT8(1, "uchar"),
        INT16(2, "short"),
        UINT16(2, "ushort"),
        INT32(4, "int"),
        UINT32(4, "uint"),
        FLOAT32(4, "float"),
        FLOAT64(8, "double");

        private final int bytes;
        private final String other;

        Type(int bytes, String other) {
            this.bytes = bytes;
            this.other = other;
        }

        private static Type of(String name, int line) {
            return Arrays.stream(values())
                    .filter(t -> t.name().equalsIgnoreCase(name) || t.other.equals(name))
                    .findFirst()
                    .orElseThrow(() -> Refusal.of(
                            "Line %d of the PLY file has numbers of kind “%s”, which is none of the format's; export it again.",
                            line, Words.quoted(name)));
        }

        /** The number of this kind that is a full channel of a colour. */
        double full() {
            return this == FLOAT32 || this == FLOAT64 ? 1 : bytes == 1 ? 255 : bytes == 2 ? 65535 : 4294967295.0;
        }
    }

    /** @param counts the kind of the number before a list that says how long it is; none where one number comes */
    record Property(String name, Type type, Optional<Type> counts) {}

    record Element(String name, long count, List<Property> properties) {
        /** Where a number is among them; below 0 where there is none of these names. */
        int place(String... names) {
            for (String wanted : names) {
                for (int i = 0; i < properties.size(); i++) {
                    if (properties.get(i).name().equals(wanted)) {
                        return i;
                    }
                }
            }
            return -1;
        }
    }

    private final BufferedInputStream in;
    private final long size;
    private final Progress progress;
    private final List<Element> elements = new ArrayList<>();
    private final List<String> pictures = new ArrayList<>();
    private Form form = Form.WORDS;
    private int line;
    private int ending = '\n';
    private long read;

    /** Reads the header. */
    PlyFile(BufferedInputStream in, long size, Progress progress) throws IOException {
        this.in = in;
        this.size = size;
        this.progress = progress;
        for (String text = line(); !text.equals("end_header"); text = line()) {
            if (line > MOST_LINES) {
                throw new Refusal("The PLY file says too much of itself; export it again.");
            }
            header(text.split("\\s+"), text);
        }
    }

    List<Element> elements() {
        return elements;
    }

    /** That are to be laid over it. */
    List<String> pictures() {
        return pictures;
    }

    private void header(String[] words, String text) {
        if (words[0].equals("format") && words.length > 1) {
            form = switch (words[1]) {
                case "ascii" -> Form.WORDS;
                case "binary_little_endian" -> Form.LITTLE_ENDIAN;
                case "binary_big_endian" -> Form.BIG_ENDIAN;
                default -> throw Refusal.of(
                        "The PLY file is in the form “%s”, which is none of the format's; export it again.",
                        Words.quoted(words[1]));
            };
        } else if (words[0].equals("element") && words.length == 3 && words[2].matches("\\d{1,12}")) {
            elements.add(new Element(words[1], Long.parseLong(words[2]), new ArrayList<>()));
        } else if (words[0].equals("property") && !elements.isEmpty() && words.length == 3) {
            last().add(new Property(words[2], Type.of(words[1], line), Optional.empty()));
        } else if (words[0].equals("property") && !elements.isEmpty() && words.length == 5) {
            last().add(new Property(words[4], Type.of(words[3], line), Optional.of(Type.of(words[2], line))));
        } else if (words[0].equals("comment") && words.length > 2 && words[1].equals("TextureFile")) {
            pictures.add(Letters.of(text.substring(text.indexOf(words[1]) + words[1].length()))
                    .strip());
        } else if (words[0].equals("element") || words[0].equals("property")) {
            throw Refusal.of(
                    "Line %d of the PLY file, “%s”, cannot be read; export it again.", line, Words.quoted(text));
        }
    }

    private List<Property> last() {
        return elements.get(elements.size() - 1).properties();
    }

    private String line() throws IOException {
        line++;
        StringBuilder text = new StringBuilder();
        for (int next = in.read(); next != '\n' && next != ending; next = in.read()) {
            read++;
            if (next == '\r' && line == 1) {
                learnEnding();
                break;
            }
            if (next < 0 || text.length() == LONGEST_LINE) {
                throw Refusal.of(
                        "The PLY file ends, or goes on without end, in line %d of what it says of itself; export it again.",
                        line);
            }
            text.append((char) next);
        }
        return text.toString().strip();
    }

    /** Lines end in CR LF, or, as those of the format's first description, in CR alone. */
    private void learnEnding() throws IOException {
        in.mark(1);
        if (in.read() != '\n') {
            in.reset();
            ending = '\r';
        }
    }

    /** The next number. */
    double next(Type type) throws IOException {
        try {
            return form == Form.WORDS ? word() : bytes(type);
        } catch (EOFException e) {
            throw new Refusal("The PLY file ends before all that it says it holds; copy or export it again.");
        }
    }

    private double word() throws IOException {
        int next = in.read();
        while (next >= 0 && next <= ' ') {
            read++;
            next = in.read();
        }
        StringBuilder text = new StringBuilder();
        while (next > ' ' && text.length() < LONGEST_NUMBER) {
            text.append((char) next);
            next = in.read();
        }
        if (text.isEmpty()) {
            throw new EOFException();
        }
        read += text.length() + 1;
        try {
            return Places.number(text.toString());
        } catch (NumberFormatException e) {
            throw Refusal.of(
                    "The PLY file has “%s” where a number must be; export it again.", Words.quoted(text.toString()));
        }
    }

    private double bytes(Type type) throws IOException {
        long bits = 0;
        for (int i = 0; i < type.bytes; i++) {
            long next = in.read();
            if (next < 0) {
                throw new EOFException();
            }
            bits = form == Form.BIG_ENDIAN ? bits << 8 | next : bits | next << 8 * i;
        }
        read += type.bytes;
        return switch (type) {
            case INT8 -> (byte) bits;
            case INT16 -> (short) bits;
            case INT32 -> (int) bits;
            case FLOAT32 -> Float.intBitsToFloat((int) bits);
            case FLOAT64 -> Double.longBitsToDouble(bits);
            default -> bits;
        };
    }

    void progress() {
        progress.at(Math.min(read, size), size);
    }
}
