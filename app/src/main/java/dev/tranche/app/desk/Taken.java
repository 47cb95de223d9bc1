package dev.tranche.app.desk;

import dev.tranche.app.storage.FileNames;
import dev.tranche.core.format.Svg;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.io.InputStream;
import org.springframework.web.multipart.MultipartFile;

/**
 * What was taken from an SVG file.
 *
 * @param said what was passed over, as a sentence; null if nothing was
 */
record Taken(Outline.Drawing drawing, String said) {
    private static final long LARGEST = 4_000_000;
    private static final int LONGEST_NAME = 50;

    static Taken from(MultipartFile file, Progress progress) throws IOException {
        if (file.isEmpty()) {
            throw new Refusal("Choose an SVG file with the outline.");
        }
        if (file.getSize() > LARGEST) {
            throw Refusal.of("The drawing is larger than %d MB; save only the outline you need.", LARGEST / 1_000_000);
        }
        try (InputStream in = file.getInputStream()) {
            Svg svg = Svg.read(in, progress);
            Silhouette silhouette = Silhouette.of(svg.area());
            String name = FileNames.stem(FileNames.shown(file.getOriginalFilename()));
            String shown = name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name;
            String said = svg.passedOver() == 0
                    ? null
                    : Words.format(
                            "%s of the drawing was passed over: text, pictures and lines without a fill; convert them to filled paths if you need them.",
                            Words.count(svg.passedOver(), "element"));
            return new Taken(new Outline.Drawing(shown, silhouette, silhouette.width()), said);
        }
    }
}
