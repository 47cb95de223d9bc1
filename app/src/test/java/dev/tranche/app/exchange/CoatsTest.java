package dev.tranche.app.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.coat.Coating;
import dev.tranche.core.format.PaintedObj;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Spool;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Models whose files paint their faces. */
class CoatsTest extends BrowserTest {
    /** A tray whose top has the colour of one spool, and the rest that of another. */
    private static byte[] tray(Spool rest, Spool top) {
        return PaintedObj.of(new Shapes().box(0, 0, 0, 30, 20, 4).mesh(), (x, y, z) -> (z > 3.9 ? top : rest).colour());
    }

    private Regions regions() {
        return plans.get(browser.path().split("[/?]")[2]).content().colours().regions();
    }

    @Test
    void a_painted_model_begins_in_its_colours_and_gets_them_back_at_one_press() throws IOException {
        List<Spool> spools = shelf.all();
        browser.open("/");
        String obj = new String(tray(spools.get(0), spools.get(1)), StandardCharsets.US_ASCII);
        byte[] varnished = ("mtllib varnish.mtl\nusemtl gloss\n" + obj).getBytes(StandardCharsets.US_ASCII);
        give("#model-file", file("coated-tray.obj", varnished));
        browser.see(".steps", "30.0 × 20.0 × 4.00 mm");
        assertThat(shelf.all()).as("the shelf has both colours").hasSameSizeAs(spools);
        assertThat(regions().list())
                .isNotEmpty()
                .allMatch(Coating::made)
                .extracting(Region::spool)
                .containsOnly(spools.get(1).id());
        Regions painted = regions();
        String plan = browser.path().split("[/?]")[2];
        plans.edit(plan, plans.get(plan).edition(), "take out", c -> c.with(Regions.NONE));
        browser.open("/plans/" + plan);
        browser.click("details:has(#model-fold) > summary");
        browser.see(".model-fold", "A part is painted on the outside, in 2 colours.");
        browser.see(".model-fold", "Colours of it are missing: “varnish.mtl” did not come with it");
        browser.click("#paint-model");
        browser.until(() -> regions().equals(painted));
        browser.until(() -> "Undo: colour the model as it is painted"
                .equals(browser.find("#undo").getDomAttribute("title")));
    }
}
