package dev.tranche.core.layer;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.speech.Progress;
import java.util.List;
import java.util.stream.IntStream;

/** A model seen from above and from beneath, each worked out when it is first asked for. */
public final class Outlooks {
    private final Steps steps;
    private final long corners;
    private Outlook above;
    private Outlook beneath;

    /** @param sections from the bed up */
    public Outlooks(List<Section> sections) {
        this.steps = new Steps(sections);
        this.corners = IntStream.range(0, sections.size())
                .filter(i -> i == 0
                        || !Steps.isSame(
                                sections.get(i).outline(), sections.get(i - 1).outline()))
                .mapToLong(i -> sections.get(i).outline().getNumPoints())
                .sum();
    }

    /** Corners of all outlines that are not as the one below: what working an outlook out costs grows with them. */
    public long corners() {
        return corners;
    }

    /** Whether both are worked out. */
    public synchronized boolean known() {
        return above != null && beneath != null;
    }

    /** @param progress hears layers done of all layers, and may stop it */
    public synchronized Outlook from(boolean fromAbove, Progress progress) {
        if (fromAbove) {
            above = above == null ? new Outlook(steps, true, progress) : above;
            return above;
        }
        beneath = beneath == null ? new Outlook(steps, false, progress) : beneath;
        return beneath;
    }
}
