package dev.tranche.core.format;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Pattern;

/** What files that are no models begin with, so that it can be said what somebody gave instead of one. */
enum Signature {
    STEP("ISO-10303-21", "a STEP file; give it in the browser, which reads it, or export it as 3MF"),
    PDF("%PDF-", "a PDF document"),
    PNG("\u0089PNG", "a picture (PNG)"),
    JPEG("\u00ff\u00d8\u00ff", "a picture (JPEG)"),
    GIF("GIF8", "a picture (GIF)"),
    SEVEN_ZIP("7z\u00bc\u00af", "a 7z archive; unpack it first"),
    RAR("Rar!", "a RAR archive; unpack it first"),
    GZIP("\u001f\u008b", "a gzip archive; unpack it first"),
    VRML("#VRML", "a VRML scene; export it as 3MF, glTF, OBJ or STL"),
    X3D("<X3D", "an X3D scene; export it as 3MF, glTF, OBJ or STL"),
    COLLADA("<COLLADA", "a COLLADA scene; export it as 3MF, glTF, OBJ or STL"),
    SVG("<svg", "a drawing (SVG); it is drawn over a model, at the desk under Regions"),
    HTML("<!doctype html", "a web page; download the file that is behind it"),
    HTML_ALONE("<html", "a web page; download the file that is behind it"),
    UTF_16("\u00ff\u00fe", Signature.TWO_BYTES),
    UTF_16_BE("\u00fe\u00ff", Signature.TWO_BYTES),
    XML("<", "an XML document");

    private static final String TWO_BYTES = "text of two bytes a letter (UTF-16); save it as plain text, UTF-8";

    /** What stands before what an XML document begins with; a web page is known by it. */
    private static final Pattern PROLOG = Pattern.compile(
            "\\A(?:\u00ef\u00bb\u00bf|\\s++|<\\?.*?\\?>|<!--.*?-->|<!doctype(?!\\s+html)[^>\\[]*+(?:\\[.*?\\]\\s*)?>)*+",
            Pattern.DOTALL | Pattern.CASE_INSENSITIVE);

    /** A comment in the first line, or a line of a command. */
    private static final Pattern GCODE = Pattern.compile("\\A;|(?m)^[GM]\\d{1,3}(\\.\\d)?(\\s|$)");

    private final String beginning;
    private final String words;

    Signature(String beginning, String words) {
        this.beginning = beginning;
        this.words = words;
    }

    boolean begins(byte[] head) {
        return begins(new String(head, StandardCharsets.ISO_8859_1));
    }

    private boolean begins(String text) {
        return text.regionMatches(true, 0, beginning, 0, beginning.length());
    }

    /** Whether a file is an XML document whose outermost element is {@code element}. */
    static boolean isXml(String element, byte[] head) {
        String begun = begun(new String(head, StandardCharsets.ISO_8859_1));
        return begun.matches("(?si)<" + element + "[\\s/>].*");
    }

    private static String begun(String text) {
        return PROLOG.matcher(text).replaceFirst("");
    }

    /** What a file looks like, for the end of a sentence. */
    static Optional<String> of(byte[] head) {
        String text = new String(head, StandardCharsets.ISO_8859_1);
        String begun = begun(text);
        String bare = begun.isEmpty() ? text.strip() : begun;
        return Arrays.stream(values())
                .filter(s -> s.begins(bare))
                .map(s -> s.words)
                .findFirst()
                .or(() -> ObjLibrary.is(head)
                        ? Optional.of("the material library of an OBJ; give it together with that")
                        : Optional.empty())
                .or(() -> GCODE.matcher(text).find()
                        ? Optional.of("G-code, sliced already; give it at the hand-off of its model's plan")
                        : Optional.empty());
    }
}
