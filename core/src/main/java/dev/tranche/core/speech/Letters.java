package dev.tranche.core.speech;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Text of files that do not say how their letters are written: UTF-16 where it begins with the mark of that, as spreadsheets write
 * it; else UTF-8 (RFC 3629) where it can be that; else what most programs of the west wrote before.
 */
public final class Letters {
    /** Which stands for ISO 8859-1 as well. Source: WHATWG, Encoding Standard, "Names and labels", from memory. */
    private static final Charset OLDER = Charset.forName("windows-1252");

    /**
     * With these archives are opened: names that are not flagged as UTF-8 have the letters of DOS, here those of western Europe; 437,
     * which the standard names, has most of them. Each byte is one letter.
     */
    public static final Charset OF_ARCHIVES = Charset.forName("IBM850");
    /** What the letters of ISO 8859-1 look like in those of DOS, and no word has. */
    private static final Pattern NO_WORD = Pattern.compile(
            "[\u2017\u2500-\u25FF]|(?<=\\p{L})[\u00A4\u00A6-\u00A8\u00AF-\u00B9\u00BE\u00F7](?=\\p{L})");

    private static final String MARK = "\uFEFF";

    /**
     * What stands for letters that are no others with a mark. Source: Unicode CLDR, transform "Latin-ASCII", from memory.
     */
    private static final Map<Character, String> PLAIN = Map.ofEntries(
            Map.entry('\u00DF', "ss"),
            Map.entry('\u1E9E', "SS"),
            Map.entry('\u00C6', "AE"),
            Map.entry('\u00E6', "ae"),
            Map.entry('\u0152', "OE"),
            Map.entry('\u0153', "oe"),
            Map.entry('\u00D8', "O"),
            Map.entry('\u00F8', "o"),
            Map.entry('\u0141', "L"),
            Map.entry('\u0142', "l"),
            Map.entry('\u0110', "D"),
            Map.entry('\u0111', "d"),
            Map.entry('\u00D0', "D"),
            Map.entry('\u00F0', "d"),
            Map.entry('\u00DE', "TH"),
            Map.entry('\u00FE', "th"),
            Map.entry('\u0126', "H"),
            Map.entry('\u0127', "h"),
            Map.entry('\u0131', "i"));

    private Letters() {}

    public static String of(byte[] text) {
        String read = read(text);
        return read.startsWith(MARK) ? read.substring(1) : read;
    }

    private static String read(byte[] text) {
        if (text.length > 1 && (text[0] & 0xFF) + (text[1] & 0xFF) == 0xFE + 0xFF && (text[0] & 0xFF) >= 0xFE) {
            return new String(text, StandardCharsets.UTF_16);
        }
        return utf8(text).orElseGet(() -> new String(text, OLDER));
    }

    private static Optional<String> utf8(byte[] text) {
        try {
            return Optional.of(StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(text))
                    .toString());
        } catch (CharacterCodingException other) {
            return Optional.empty();
        }
    }

    /** Of what was read as ISO 8859-1, byte by byte; what holds other letters was read otherwise, and stays. */
    public static String of(String bytes) {
        return bytes.chars().allMatch(c -> c < 0x100) ? of(bytes.getBytes(StandardCharsets.ISO_8859_1)) : bytes;
    }

    /** Letters that every display shows, and without those for which there are none; line breaks stay. */
    public static String plain(String text) {
        StringBuilder plain = new StringBuilder(text.length());
        for (char letter : Normalizer.normalize(text, Normalizer.Form.NFKD).toCharArray()) {
            boolean isPlain = letter >= ' ' && letter <= '~' || letter == '\n';
            plain.append(isPlain ? String.valueOf(letter) : PLAIN.getOrDefault(letter, ""));
        }
        return plain.toString();
    }

    /** {@link #plain(String)} where the letters are Latin; those of other scripts stay as they are. */
    public static String plainIfLatin(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFC)
                .codePoints()
                .mapToObj(Character::toString)
                .map(letter -> isOfOtherScript(letter.codePointAt(0)) ? letter : plain(letter))
                .collect(Collectors.joining());
    }

    /**
     * Digits and signs belong to no script of their own, but some letters belong to several. Source: Unicode Standard Annex #24,
     * "Script property".
     */
    private static boolean isOfOtherScript(int letter) {
        return switch (Character.UnicodeScript.of(letter)) {
            case LATIN, UNKNOWN -> false;
            case COMMON, INHERITED -> Character.isLetter(letter);
            default -> true;
        };
    }

    /** A file's name; accents stand on their letters. */
    public static String name(String name) {
        return Normalizer.normalize(of(name), Normalizer.Form.NFC);
    }

    /** A file's name as an archive gives it that was opened with {@link #OF_ARCHIVES}, whatever letters it was written in. */
    public static String archived(String name) {
        byte[] bytes = name.getBytes(OF_ARCHIVES);
        boolean isOfBytes = new String(bytes, OF_ARCHIVES).equals(name);
        return Normalizer.normalize(isOfBytes ? archived(name, bytes) : name, Normalizer.Form.NFC);
    }

    private static String archived(String name, byte[] bytes) {
        return utf8(bytes).orElseGet(() -> NO_WORD.matcher(name).find() ? new String(bytes, OLDER) : name);
    }

    /** A file's name as it is held against others: capitals make no difference. */
    public static String alike(String name) {
        return name(name).toLowerCase(Locale.ROOT);
    }
}
