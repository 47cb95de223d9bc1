package dev.tranche.core.layer;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.speech.Progress;
import java.util.List;
import java.util.stream.IntStream;

/** A model seen from above and from beneath, each worked out when it is first asked for. */
public final class Outlooks {
    /** As many corners are looked at while nobody notices a wait. */
    public static final long QUICK = 150_000;

    /** What a layer costs however few its corners are. */
    private static final int EACH = 50;

    private final CutModel model;
    private final Steps steps;
    private final long corners;
    private final Side above = new Side(true);
    private final Side beneath = new Side(false);
    private volatile List<Flat> flats;

    public Outlooks(CutModel model) {
        List<Section> sections = model.sections();
        this.model = model;
        this.steps = new Steps(sections);
        this.corners = IntStream.range(0, sections.size())
                .filter(i -> i == 0
                        || !Steps.isSame(
                                sections.get(i).outline(), sections.get(i - 1).outline()))
                .mapToLong(i -> EACH + sections.get(i).outline().getNumPoints())
                .sum();
    }

    /** Corners of all outlines that are not as the one below: what working an outlook out costs grows with them. */
    public long corners() {
        return corners;
    }

    /** Level places that are seen from above, lowest first, the model's own top among them. */
    public List<Flat> flats() {
        synchronized (steps) {
            if (flats == null) {
                flats = Flats.of(model, steps, this, corners <= QUICK);
            }
            return flats;
        }
    }

    /** Whether both are worked out. */
    public boolean known() {
        return above.known != null && beneath.known != null;
    }

    /** @param progress hears layers done of all layers, and may stop it */
    public Outlook from(boolean fromAbove, Progress progress) {
        return (fromAbove ? above : beneath).worked(progress);
    }

    /** Whoever wants one side does not wait for the other. */
    private final class Side {
        private final boolean fromAbove;
        private volatile Outlook known;

        Side(boolean fromAbove) {
            this.fromAbove = fromAbove;
        }

        synchronized Outlook worked(Progress progress) {
            known = known == null ? new Outlook(steps, fromAbove, progress) : known;
            return known;
        }
    }
}
