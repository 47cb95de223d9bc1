package dev.tranche.core.format;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javax.xml.stream.XMLStreamReader;

/**
 * What a 3MF file is made of: base materials and colours, materials mixed of others, and properties laid over one another.
 * By the core specification and the 3MF Materials and Properties Extension, as far as they tell one colour; {@link ThreeMfPictures} tell many.
 */
final class ThreeMfMaterials {
    private static final int LONGEST_NAME = 60;
    private static final int MOST_PARTS = 100;

    /** @param cover how much it hides of what it is laid over, 0…1 */
    record Material(String name, Optional<Srgb> colour, double cover) {
        static final Material NONE = new Material("", Optional.empty(), 1);
    }

    private final Map<Integer, List<Material>> groups = new HashMap<>();
    /** What is being read: its members, and of what others they are made. */
    private List<Material> group = new ArrayList<>();

    private int base;
    private int[] parts = {};
    private String[] blending = {};

    /** Takes in an element, if it is one of materials. */
    void read(XMLStreamReader xml) {
        switch (xml.getLocalName()) {
            case "basematerials", "colorgroup" -> begin(xml);
            case "compositematerials" -> {
                begin(xml);
                base = ThreeMfPart.whole(xml, "matid");
                parts = few(wholes(xml, "matindices"), xml);
            }
            case "multiproperties" -> {
                begin(xml);
                parts = few(wholes(xml, "pids"), xml);
                blending = words(xml, "blendmethods").toArray(String[]::new);
            }
            case "base" -> group.add(material(xml, xml.getAttributeValue(null, "name"), "displaycolor"));
            case "color" -> group.add(material(xml, "", "color"));
            case "composite" -> group.add(mixed(words(xml, "values")
                    .map(word -> ThreeMfPart.parse(word, xml))
                    .toList()));
            case "multi" -> group.add(laidOver(wholes(xml, "pindices")));
            default -> {}
        }
    }

    Material of(int group, int index) {
        List<Material> of = groups.getOrDefault(group, List.of());
        return index >= 0 && index < of.size() ? of.get(index) : Material.NONE;
    }

    private void begin(XMLStreamReader xml) {
        group = new ArrayList<>();
        groups.put(ThreeMfPart.whole(xml, "id"), group);
    }

    /** Plastics that run together; the name of one is no name of a mixture. */
    private Material mixed(List<Double> shares) {
        List<Material> of = new ArrayList<>();
        List<Double> known = new ArrayList<>();
        for (int i = 0; i < Math.min(shares.size(), parts.length); i++) {
            Material part = of(base, parts[i]);
            if (part.colour().isPresent() && shares.get(i) > 0 && Double.isFinite(shares.get(i))) {
                of.add(part);
                known.add(shares.get(i));
            }
        }
        if (of.isEmpty()) {
            return Material.NONE;
        }
        double all = known.stream().mapToDouble(Double::doubleValue).sum();
        LinearRgb mix = Melt.mix(
                of.stream().map(m -> m.colour().orElseThrow().linear()).toList(),
                known.stream().map(share -> share / all).toList());
        return new Material(of.size() == 1 ? of.get(0).name() : "", Optional.of(Srgb.of(mix)), 1);
    }

    /** The first beneath; what is not said is the first of its group. Light is added in linear shares, from memory. */
    private Material laidOver(int[] indices) {
        Material seen = Material.NONE;
        for (int i = 0; i < parts.length; i++) {
            Material next = of(parts[i], i < indices.length ? indices[i] : 0);
            boolean multiplied = i > 0 && i <= blending.length && blending[i - 1].equals("multiply");
            seen = i == 0 ? next : over(seen, next, multiplied);
        }
        return seen;
    }

    /** Called as what is beneath only where nothing else is seen. */
    private static Material over(Material beneath, Material next, boolean multiplied) {
        if (beneath.colour().isEmpty() || next.colour().isEmpty()) {
            String name = beneath.name().isEmpty() ? next.name() : beneath.name();
            return new Material(name, next.colour().or(beneath::colour), 1);
        }
        LinearRgb a = beneath.colour().get().linear();
        LinearRgb b = next.colour().get().linear();
        double c = next.cover();
        Srgb seen = Srgb.of(
                multiplied
                        ? new LinearRgb(a.red() * b.red(), a.green() * b.green(), a.blue() * b.blue())
                        : new LinearRgb(
                                a.red() + c * (b.red() - a.red()),
                                a.green() + c * (b.green() - a.green()),
                                a.blue() + c * (b.blue() - a.blue())));
        return new Material(seen.equals(beneath.colour().get()) ? beneath.name() : "", Optional.of(seen), 1);
    }

    private static Material material(XMLStreamReader xml, String name, String colour) {
        String said = xml.getAttributeValue(null, colour);
        try {
            if (said != null && said.matches("#[0-9A-Fa-f]{6}([0-9A-Fa-f]{2})?")) {
                double cover = said.length() > 7 ? Integer.parseInt(said.substring(7), 16) / 255.0 : 1;
                return new Material(oneLine(name), Optional.of(Srgb.parse(said.substring(0, 7))), cover);
            }
        } catch (Refusal unreadable) {
            // As one without a colour.
        }
        return new Material(oneLine(name), Optional.empty(), 1);
    }

    static String oneLine(String text) {
        String line = Words.oneLine(text == null ? "" : text);
        return line.length() <= LONGEST_NAME ? line : line.substring(0, LONGEST_NAME);
    }

    static Stream<String> words(XMLStreamReader xml, String attribute) {
        String said = xml.getAttributeValue(null, attribute);
        return said == null ? Stream.of() : Arrays.stream(said.strip().split("\\s+"));
    }

    static int[] few(int[] parts, XMLStreamReader xml) {
        if (parts.length > MOST_PARTS) {
            throw Refusal.of(
                    "A material on line %d is made of %d others; at most %d can be, so export the 3MF file again.",
                    xml.getLocation().getLineNumber(), parts.length, MOST_PARTS);
        }
        return parts;
    }

    static int[] wholes(XMLStreamReader xml, String attribute) {
        return words(xml, attribute)
                .mapToInt(word -> (int) ThreeMfPart.parse(word, xml))
                .toArray();
    }
}
