package dev.tranche.core.speech;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;

/**
 * Text of files that do not say how their letters are written: UTF-16 where it begins with the mark of that, as spreadsheets write
 * it; else UTF-8 (RFC 3629) where it can be that; else what most programs of the west wrote before.
 */
public final class Letters {
    /** Which stands for ISO 8859-1 as well. Source: WHATWG, Encoding Standard, "Names and labels", from memory. */
    private static final Charset OLDER = Charset.forName("windows-1252");

    private static final String MARK = "\uFEFF";

    private Letters() {}

    public static String of(byte[] text) {
        String read = read(text);
        return read.startsWith(MARK) ? read.substring(1) : read;
    }

    private static String read(byte[] text) {
        if (text.length > 1 && (text[0] & 0xFF) + (text[1] & 0xFF) == 0xFE + 0xFF && (text[0] & 0xFF) >= 0xFE) {
            return new String(text, StandardCharsets.UTF_16);
        }
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(text))
                    .toString();
        } catch (CharacterCodingException other) {
            return new String(text, OLDER);
        }
    }

    /** Of what was read as ISO 8859-1, byte by byte. */
    public static String of(String bytes) {
        return of(bytes.getBytes(StandardCharsets.ISO_8859_1));
    }

    /** A file's name, read as above if an archive gave its bytes one by one; accents stand on their letters. */
    public static String name(String name) {
        String read = name.chars().allMatch(c -> c < 0x100) ? of(name) : name;
        return Normalizer.normalize(read, Normalizer.Form.NFC);
    }

    /** A file's name as it is held against others: capitals make no difference. */
    public static String alike(String name) {
        return name(name).toLowerCase(Locale.ROOT);
    }
}
