package dev.tranche.app.desk;

import dev.tranche.app.pictures.LayerDrawing;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.speech.Words;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What a screen reader says when the cursor or the plan changes, where the eye would glance over drawings and ledger. */
@Component
class Heard {
    private final Figures figures;

    Heard(Figures figures) {
        this.figures = figures;
    }

    /** A layer, and the colours on it: "Layer 7 of 16, 1.20 to 1.40 mm: D Straw, B Chalk." */
    String layer(DeskViews.Cursor cursor, LayerDrawing drawing) {
        String colours = drawing.colours().stream()
                .map(colour -> colour.mark().letter() + " " + colour.mark().name())
                .collect(Collectors.joining(", "));
        return "Layer " + cursor.layer() + " of " + cursor.of() + ", " + cursor.bottom() + " to " + cursor.top()
                + " mm: " + (colours.isEmpty() ? "nothing is printed" : colours) + ".";
    }

    /** What the plan comes to: "3 swaps, purge 17 mm, whole print 22 min; 1 to mend before it can be handed off." */
    String plan(Workpiece work) {
        Ledger ledger = work.ledger();
        int obstacles = work.obstacles().size();
        return Words.count(Math.round(ledger.swapCount().value()), "swap") + ", purge "
                + figures.value(ledger.purgeLength())
                + ", whole print " + figures.value(ledger.totalTime())
                + (obstacles == 0 ? "." : "; " + obstacles + " to mend before it can be handed off.");
    }
}
