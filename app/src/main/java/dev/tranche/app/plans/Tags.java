package dev.tranche.app.plans;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/** Words by which an owner sorts plans, such as garden and gifts; in the order in which they were given. */
public record Tags(List<String> list) {
    private static final int MOST = 20;
    private static final int LONGEST = 30;

    public static final Tags NONE = new Tags(List.of());

    public Tags {
        list = list.stream()
                .map(Words::oneLine)
                .filter(t -> !t.isEmpty())
                .distinct()
                .toList();
        if (list.size() > MOST || list.stream().anyMatch(t -> t.length() > LONGEST)) {
            throw Refusal.of("A plan takes at most %d tags of %d letters each.", MOST, LONGEST);
        }
    }

    /** Reads tags that stand between commas. */
    public static Tags parse(String text) {
        return new Tags(Arrays.asList((text == null ? "" : text).split("[,;]")));
    }

    public Tags with(Tags more) {
        return new Tags(Stream.concat(list.stream(), more.list.stream()).toList());
    }

    public Tags without(Tags those) {
        return new Tags(list.stream().filter(t -> !those.list.contains(t)).toList());
    }

    @Override
    public String toString() {
        return String.join(", ", list);
    }
}
