package dev.tranche.app.compare;

import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.web.Numbers;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;

/**
 * What is to be otherwise, as it is typed and chosen; nothing where it stays.
 *
 * @param layer height, mm
 * @param place {@code bin}, {@code tower} or {@code routine}
 * @param printer id
 */
record VariantForm(String layer, Rule order, String place, String copies, Long printer) {

    /** {@code plan} with all of it. */
    PlanContent on(PlanContent plan) {
        PlanContent changed = plan;
        if (given(layer)) {
            LayerSettings now = plan.colours().layers();
            changed = changed.with(changed.colours().withLayers(now.withLayers(now.firstLayer(), Height.parse(layer))));
        }
        if (order != null) {
            changed = changed.with(
                    changed.colours().with(changed.colours().ordering().by(order)));
        }
        if (given(place)) {
            changed = changed.with(changed.purge().into(chosen()));
        }
        if (given(copies)) {
            changed = changed.times(Numbers.whole("number of copies", copies));
        }
        return printer == null ? changed : changed.on(printer);
    }

    private PurgePlace chosen() {
        return switch (place) {
            case "tower" -> new PurgePlace.OnTower(PurgePlace.OnTower.USUAL);
            case "routine" -> new PurgePlace.Routine(PurgePlace.Routine.USUAL);
            default -> new PurgePlace.Bin();
        };
    }

    /** What is otherwise in {@code plan}, in words; that it is a copy where nothing is. */
    String name(Workshop workshop, PlanState plan) {
        PlanContent was = plan.content();
        PlanContent is = on(was);
        List<String> words = new ArrayList<>();
        if (!is.colours().layers().equals(was.colours().layers())) {
            words.add("layers of " + is.colours().layers().layerHeight() + " mm");
        }
        if (is.colours().ordering().rule() != was.colours().ordering().rule()) {
            words.add(order.title());
        }
        if (!is.purge().equals(was.purge())) {
            words.add(
                    switch (place) {
                        case "tower" -> "with a tower";
                        case "routine" -> "machine's routine";
                        default -> "purge beside";
                    });
        }
        if (is.copies() != was.copies()) {
            words.add(is.copies() == 1 ? "one copy" : is.copies() + " copies");
        }
        if (is.printer() != was.printer()) {
            words.add("on " + workshop.get(is.printer()).printer().name());
        }
        String name = words.isEmpty() ? plan.name() + " (copy)" : String.join(", ", words);
        return name.length() <= 80 ? name : name.substring(0, 79) + "…";
    }

    private static boolean given(String text) {
        return text != null && !text.isBlank();
    }
}
