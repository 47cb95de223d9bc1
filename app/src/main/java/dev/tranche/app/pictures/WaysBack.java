package dev.tranche.app.pictures;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.returns.ReturnPath;
import dev.tranche.core.returns.ReturnPath.Stain;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Ways back from swaps that are alike.
 *
 * @param path of the first of them
 * @param swaps which they are, in words
 * @param sentence what they do
 */
public record WaysBack(ReturnPath path, String swaps, String sentence) {
    /** More lines across the bed than that hide one another. */
    private static final int MOST_SHOWN = 12;

    private static final int MOST_NAMED = 6;

    private record Kind(boolean turns, List<Long> places, String sentence) {}

    /** Those of {@code ways} that are listed and drawn. */
    public static List<WaysBack> shown(List<WaysBack> ways) {
        return ways.subList(0, Math.min(MOST_SHOWN, ways.size()));
    }

    /** Unclean ones first. */
    public static List<WaysBack> of(Workpiece work) {
        Map<Kind, List<ReturnPath>> alike = new LinkedHashMap<>();
        work.returns().paths().forEach(p -> alike.computeIfAbsent(
                        new Kind(p.turns(), rounded(p), sentence(p, work)), k -> new ArrayList<>())
                .add(p));
        List<WaysBack> ways = new ArrayList<>();
        alike.forEach((kind, paths) -> ways.add(new WaysBack(paths.get(0), swaps(paths), kind.sentence())));
        ways.sort((a, b) -> Boolean.compare(a.path.isClean(), b.path.isClean()));
        return ways;
    }

    private static List<Long> rounded(ReturnPath path) {
        return path.places().stream()
                .flatMap(c -> List.of(Math.round(c.x), Math.round(c.y)).stream())
                .toList();
    }

    private static String swaps(List<ReturnPath> paths) {
        String named = paths.stream()
                .limit(MOST_NAMED)
                .map(p -> String.valueOf(p.swap()))
                .collect(Collectors.joining(", "));
        return (paths.get(0).turns() ? "Blend" : "Swap")
                + (paths.size() == 1 ? " " : "s ")
                + named
                + (paths.size() > MOST_NAMED ? Words.format(" and %d more", paths.size() - MOST_NAMED) : "");
    }

    private static String sentence(ReturnPath path, Workpiece work) {
        String to = "to " + work.label(work.spool(path.spool()));
        if (path.isClean()) {
            return path.tower().isPresent() ? to + ", past the tower" : to + ", over no other colour";
        }
        Map<String, Double> over = new LinkedHashMap<>();
        boolean several = work.layout().copies().size() > 1;
        for (Stain s : path.stains()) {
            over.merge(
                    work.label(work.spool(s.spool())) + (several ? " of copy " + (s.copy() + 1) : ""),
                    s.length(),
                    Double::sum);
        }
        return to
                + ", over "
                + over.entrySet().stream()
                        .limit(MOST_NAMED)
                        .map(e -> Words.format("%.0f mm of %s", Math.max(1, e.getValue()), e.getKey()))
                        .collect(Collectors.joining(" and "))
                + (path.tower().isPresent() ? " before the tower" : "");
    }
}
