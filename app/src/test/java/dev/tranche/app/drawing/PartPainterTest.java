package dev.tranche.app.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PaintedObj;
import dev.tranche.core.format.Part;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Stopped;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class PartPainterTest {
    private static final Srgb RED = new Srgb(200, 30, 30);
    private static final Srgb BLUE = new Srgb(30, 30, 200);

    private static Part part(Srgb colour, Mesh mesh) {
        return new Part("block", 0, Optional.ofNullable(colour), "", Optional.empty(), mesh);
    }

    private static Mesh block(double front, double high) {
        return new Shapes().box(0, front, 0, 20, 10, high).mesh();
    }

    /** The colour in the middle of the picture, so many px below its upper edge. */
    private static Srgb seen(List<Part> parts, int down) throws IOException {
        BufferedImage image =
                ImageIO.read(new ByteArrayInputStream(PartPainter.png(parts, 240, 170, Progress.UNHEARD)));
        int rgb = image.getRGB(120, down);
        return new Srgb(rgb >> 16 & 0xff, rgb >> 8 & 0xff, rgb & 0xff);
    }

    @Test
    void what_lies_level_has_the_colour_of_the_file_and_grey_where_it_gives_none() throws IOException {
        assertThat(seen(List.of(part(RED, block(0, 1))), 85)).isEqualTo(RED);
        assertThat(seen(List.of(part(null, block(0, 1))), 85)).isEqualTo(new Srgb(224, 224, 224));
    }

    @Test
    void what_stands_in_front_hides_what_is_behind_whichever_the_file_names_first() throws IOException {
        Part front = part(RED, block(0, 40));
        Part behind = part(BLUE, block(12, 20));
        assertThat(seen(List.of(front, behind), 100).red()).isGreaterThan(100);
        assertThat(seen(List.of(behind, front), 100)).isEqualTo(seen(List.of(front, behind), 100));
    }

    @Test
    void a_peg_on_a_large_plate_is_not_hidden_by_the_plate() throws IOException {
        Part plate = part(RED, new Shapes().box(0, 0, 0, 200, 200, 2).mesh());
        Part peg = part(BLUE, new Shapes().box(90, 150, 0, 20, 20, 12).mesh());
        assertThat(seen(List.of(plate, peg), 33)).isEqualTo(BLUE);
        assertThat(seen(List.of(peg, plate), 33)).isEqualTo(BLUE);
    }

    @Test
    void painting_can_be_stopped() {
        assertThatThrownBy(() -> PartPainter.png(List.of(part(RED, block(0, 1))), 240, 170, new Stopped()))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void a_painted_part_shows_its_paint() throws IOException {
        byte[] tray = PaintedObj.of(block(0, 4), (x, y, z) -> z > 3.9 ? BLUE : RED);
        List<Part> parts = ModelReader.read(new ByteArrayInputStream(tray), tray.length, Progress.UNHEARD)
                .parts();
        assertThat(seen(parts, 75)).isEqualTo(BLUE);
        assertThat(seen(parts, 155).red()).isGreaterThan(100);
    }
}
