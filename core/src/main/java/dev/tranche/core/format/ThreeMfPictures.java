package dev.tranche.core.format;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import javax.xml.stream.XMLStreamReader;

/**
 * Pictures that the triangles of a 3MF file show pieces of: 2D textures of the 3MF Materials and Properties Extension, whose places
 * are told from the left and from below, 0…1 (from memory). Of properties laid over one another the topmost picture counts.
 */
final class ThreeMfPictures {
    private static final int NONE = -1;

    /**
     * A picture laid over a surface.
     *
     * @param path in the archive
     */
    record Texture(String path, Picture.Tiling across, Picture.Tiling up) {}

    /** Places of a picture that corners can lie on. */
    static final class Group {
        private final Texture texture;
        private float[] places = new float[64];
        private int count;

        private Group(Texture texture) {
            this.texture = texture;
        }

        private void add(double u, double v) {
            if (2 * count == places.length) {
                places = Arrays.copyOf(places, 2 * places.length);
            }
            places[2 * count] = (float) u;
            places[2 * count + 1] = (float) v;
            count++;
        }

        Texture texture() {
            return texture;
        }

        /** From the left; of a place that the file does not have, 0. */
        double u(int place) {
            return place >= 0 && place < count ? places[2 * place] : 0;
        }

        /** From below. */
        double v(int place) {
            return place >= 0 && place < count ? places[2 * place + 1] : 0;
        }
    }

    private final Map<Integer, Texture> textures = new HashMap<>();
    private final Map<Integer, Group> groups = new HashMap<>();
    /** That is being read; null where it shows no picture. */
    private Group group;
    /** Of what is laid over one another, the picture's place in the list and its group. */
    private int layer = NONE;

    private Group beneath;

    /** Takes in an element, if it is one of pictures. */
    void read(XMLStreamReader xml) {
        switch (xml.getLocalName()) {
            case "texture2d" -> {
                String path = xml.getAttributeValue(null, "path");
                textures.put(
                        ThreeMfPart.whole(xml, "id"),
                        new Texture(path == null ? "" : path, tiling(xml, "tilestyleu"), tiling(xml, "tilestylev")));
            }
            case "texture2dgroup" -> group =
                    begun(xml, Optional.ofNullable(textures.get(ThreeMfPart.whole(xml, "texid"))));
            case "tex2coord" -> {
                double u = ThreeMfPart.parse(xml.getAttributeValue(null, "u"), xml);
                double v = ThreeMfPart.parse(xml.getAttributeValue(null, "v"), xml);
                if (group != null) {
                    group.add(u, v);
                }
            }
            case "multiproperties" -> {
                int[] laid = ThreeMfMaterials.wholes(xml, "pids");
                layer = laid.length - 1;
                while (layer >= 0 && !groups.containsKey(laid[layer])) {
                    layer--;
                }
                beneath = layer < 0 ? null : groups.get(laid[layer]);
                group = begun(xml, Optional.ofNullable(beneath).map(Group::texture));
            }
            case "multi" -> {
                int[] indices = ThreeMfMaterials.wholes(xml, "pindices");
                if (group != null && beneath != null) {
                    int place = layer < indices.length ? indices[layer] : 0;
                    group.add(beneath.u(place), beneath.v(place));
                }
            }
            default -> {}
        }
    }

    private Group begun(XMLStreamReader xml, Optional<Texture> texture) {
        texture.ifPresent(t -> groups.put(ThreeMfPart.whole(xml, "id"), new Group(t)));
        return texture.isEmpty() ? null : groups.get(ThreeMfPart.whole(xml, "id"));
    }

    private static Picture.Tiling tiling(XMLStreamReader xml, String attribute) {
        String said = xml.getAttributeValue(null, attribute);
        return Arrays.stream(Picture.Tiling.values())
                .filter(t -> t.name().equalsIgnoreCase(said))
                .findFirst()
                .orElse(Picture.Tiling.WRAP);
    }

    /** Of that number, if it shows a picture. */
    Optional<Group> group(int number) {
        return Optional.ofNullable(groups.get(number));
    }
}
