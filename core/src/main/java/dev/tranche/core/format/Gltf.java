package dev.tranche.core.format;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.IntNode;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.io.InputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntUnaryOperator;

/**
 * Reads glTF 2.0: the scene that it shows first, as it stands when nothing moves. Y is up there and the unit is the metre. Each
 * thing has the name of its node; its colours are those of its material, of the picture that it shows, or of its corners.
 *
 * <p>Source: ISO/IEC 12113:2022, which is Khronos glTF 2.0, from memory; KHR_texture_transform likewise.
 */
final class Gltf {
    /** What a file may require: it moves pictures, packs numbers, or is about the looks of what is not printed. */
    private static final Set<String> READ = Set.of(
            "KHR_texture_transform",
            "KHR_mesh_quantization",
            "KHR_lights_punctual",
            "KHR_animation_pointer",
            "KHR_xmp_json_ld");

    private static final String LOOKS = "KHR_materials_";

    private static final int MOST_PIECES = 200_000;
    private static final int DEEPEST = 512;
    private static final double MILLIMETRES = 1000;
    // Ways to take corners for triangles, as OpenGL numbers them.
    private static final int TRIANGLES = 4;
    private static final int STRIP = 5;
    private static final int FAN = 6;

    private final GltfFile file;
    private final Progress progress;
    private final Corners corners = new Corners();
    private final Tints tints = new Tints();
    private final Map<String, Optional<Picture>> pictures = new HashMap<>();
    private final Set<Integer> placed = new HashSet<>();
    private long pictured;
    private int pieces;

    private Gltf(GltfFile file, Progress progress) {
        this.file = file;
        this.progress = progress;
    }

    /** How a piece is coloured: by its picture, laid so and so, else by its corners, else all of it. */
    private record Dress(
            Optional<Srgb> colour, String called, Optional<Picture> picture, JsonNode laid, JsonNode spots) {}

    static PartedModel read(InputStream in, long size, Progress progress) throws IOException {
        Gltf gltf = new Gltf(GltfFile.read(in, size), progress);
        gltf.require();
        gltf.scene();
        if (gltf.corners.isEmpty()) {
            throw new Refusal("The glTF scene shows no triangles; export the model with its faces.");
        }
        return gltf.corners.model(progress);
    }

    private void require() {
        for (JsonNode required : file.said().path("extensionsRequired")) {
            String name = required.asText();
            if (!READ.contains(name) && !name.startsWith(LOOKS)) {
                throw Refusal.of(
                        "The glTF file requires “%s”, an extension of the format that Tranche does not read; export it without compression, as plain triangles.",
                        Words.quoted(name));
            }
        }
    }

    /** Of files without scenes, every node that stands in no other. */
    private void scene() {
        JsonNode scenes = file.said().path("scenes");
        JsonNode nodes = file.said().path("nodes");
        if (scenes.isEmpty()) {
            Set<Integer> inside = new HashSet<>();
            nodes.forEach(n -> n.path("children").forEach(c -> inside.add(c.asInt(-1))));
            for (int i = 0; i < nodes.size(); i++) {
                if (!inside.contains(i)) {
                    node(IntNode.valueOf(i), Affine.UNMOVED, "", 0);
                }
            }
        } else {
            scenes.path(file.said().path("scene").asInt(0)).path("nodes").forEach(n -> node(n, Affine.UNMOVED, "", 0));
        }
    }

    private void node(JsonNode number, Affine beneath, String within, int depth) {
        JsonNode node = file.listed("nodes", number);
        if (depth > DEEPEST || !placed.add(number.asInt(-1))) {
            throw Refusal.of(
                    "Node %s of the glTF file is nested too deep, or stands in two places; export it again.",
                    Words.quoted(number.asText("?")));
        }
        Affine place = own(node).then(beneath);
        String name = ThreeMfMaterials.oneLine(node.path("name").asText(within));
        JsonNode mesh = file.listed("meshes", node.path("mesh"));
        String called =
                name.isEmpty() ? ThreeMfMaterials.oneLine(mesh.path("name").asText("")) : name;
        for (JsonNode piece : mesh.path("primitives")) {
            if (++pieces > MOST_PIECES) {
                throw Refusal.of("The glTF scene has over %,d pieces; join them, and export it again.", MOST_PIECES);
            }
            progress.beat();
            piece(piece, place, called, number.asInt());
        }
        for (JsonNode child : node.path("children")) {
            node(child, place, name, depth + 1);
        }
    }

    /** The format has it column by column, of columns that multiply from the right: the same numbers, one after the other. */
    private static Affine own(JsonNode node) {
        JsonNode matrix = node.path("matrix");
        double[] own = new double[12];
        if (matrix.isArray() && matrix.size() == 16) {
            for (int i = 0; i < 12; i++) {
                own[i] = matrix.path(i / 3 * 4 + i % 3).asDouble();
            }
            return new Affine(own);
        }
        double x = number(node, "rotation", 0, 0);
        double y = number(node, "rotation", 1, 0);
        double z = number(node, "rotation", 2, 0);
        double w = number(node, "rotation", 3, 1);
        double[] turned = {
            1 - 2 * (y * y + z * z),
            2 * (x * y + z * w),
            2 * (x * z - y * w),
            2 * (x * y - z * w),
            1 - 2 * (x * x + z * z),
            2 * (y * z + x * w),
            2 * (x * z + y * w),
            2 * (y * z - x * w),
            1 - 2 * (x * x + y * y)
        };
        for (int i = 0; i < 9; i++) {
            own[i] = number(node, "scale", i / 3, 1) * turned[i];
        }
        for (int i = 0; i < 3; i++) {
            own[9 + i] = number(node, "translation", i, 0);
        }
        return new Affine(own);
    }

    private static double number(JsonNode of, String name, int at, double otherwise) {
        return of.path(name).path(at).asDouble(otherwise);
    }

    /** Triangles one by one, in a strip or in a fan; points and lines are passed over. */
    private void piece(JsonNode piece, Affine place, String name, int thing) {
        int mode = piece.path("mode").asInt(TRIANGLES);
        JsonNode positions = piece.path("attributes").path("POSITION");
        if (mode < TRIANGLES || mode > FAN || positions.isMissingNode()) {
            return;
        }
        GltfFile.Numbers at = file.numbers(positions, 3);
        IntUnaryOperator order = i -> i;
        int count = at.count();
        if (piece.has("indices")) {
            GltfFile.Numbers indices = file.numbers(piece.path("indices"), 1);
            order = i -> index(indices, i, at.count(), name);
            count = indices.count();
        }
        Dress dress = dress(piece);
        Optional<GltfFile.Numbers> spots =
                dress.picture().map(p -> each(dress.spots(), 2, at.count(), name, "places on its picture"));
        JsonNode coloured = piece.path("attributes").path("COLOR_0");
        Optional<GltfFile.Numbers> lights = spots.isPresent() || coloured.isMissingNode()
                ? Optional.empty()
                : Optional.of(each(coloured, 3, at.count(), name, "colours of them"));
        dress.picture()
                .ifPresentOrElse(
                        p -> corners.pictured(name, p, thing),
                        () -> corners.labelled(name, dress.colour(), dress.called(), thing));
        boolean over = place.mirrors();
        for (int t = 0; mode == TRIANGLES ? 3 * t + 2 < count : t + 2 < count; t++) {
            if ((t & 0xFFFF) == 0) {
                progress.beat();
            }
            int a = order.applyAsInt(mode == TRIANGLES ? 3 * t : mode == STRIP ? t : 0);
            int b = order.applyAsInt(mode == TRIANGLES ? 3 * t + 1 : t + 1);
            int c = order.applyAsInt(mode == TRIANGLES ? 3 * t + 2 : t + 2);
            boolean flipped = over != (mode == STRIP && t % 2 == 1);
            lights.map(l -> tints.of(colour(l, a, dress), colour(l, b, dress), colour(l, c, dress)))
                    .ifPresent(tint -> corners.labelled(name, Optional.of(tint), dress.called(), thing));
            for (int corner : new int[] {a, flipped ? c : b, flipped ? b : c}) {
                add(at, corner, place, name);
                spots.ifPresent(s -> show(s, corner, dress.laid()));
            }
        }
    }

    /** What is told of each corner. */
    private GltfFile.Numbers each(JsonNode attribute, int components, int corners, String name, String what) {
        GltfFile.Numbers told = file.numbers(attribute, components);
        if (told.count() < corners) {
            throw Refusal.of(
                    "“%s” of the glTF file has %d corners and %d %s; export it again.",
                    Words.quoted(name), corners, told.count(), what);
        }
        return told;
    }

    /** Colours of corners are light, through that of the material. */
    private static Srgb colour(GltfFile.Numbers lights, int corner, Dress dress) {
        LinearRgb through = dress.colour().map(Srgb::linear).orElse(new LinearRgb(1, 1, 1));
        return Srgb.of(new LinearRgb(
                through.red() * lights.at(corner, 0),
                through.green() * lights.at(corner, 1),
                through.blue() * lights.at(corner, 2)));
    }

    private static int index(GltfFile.Numbers indices, int i, int corners, String name) {
        long index = (long) indices.at(i, 0);
        if (index < 0 || index >= corners) {
            throw Refusal.of(
                    "“%s” of the glTF file names corner %d, and there are %d; export it again.",
                    Words.quoted(name), index, corners);
        }
        return (int) index;
    }

    private void add(GltfFile.Numbers at, int corner, Affine place, String name) {
        double x = at.at(corner, 0);
        double y = at.at(corner, 1);
        double z = at.at(corner, 2);
        corners.add(
                MILLIMETRES * place.x(x, y, z),
                -MILLIMETRES * place.z(x, y, z),
                MILLIMETRES * place.y(x, y, z),
                name.isEmpty() ? "The scene" : name);
    }

    /** Rows of a picture are counted from above there, and turning is counter-clockwise as one sees it. */
    private void show(GltfFile.Numbers spots, int corner, JsonNode laid) {
        double turn = laid.path("rotation").asDouble(0);
        double u = spots.at(corner, 0) * number(laid, "scale", 0, 1);
        double v = spots.at(corner, 1) * number(laid, "scale", 1, 1);
        corners.shows(
                number(laid, "offset", 0, 0) + Math.cos(turn) * u + Math.sin(turn) * v,
                1 - (number(laid, "offset", 1, 0) - Math.sin(turn) * u + Math.cos(turn) * v));
    }

    private Dress dress(JsonNode piece) {
        JsonNode material = file.listed("materials", piece.path("material"));
        String called = ThreeMfMaterials.oneLine(material.path("name").asText(""));
        JsonNode usual = material.path("pbrMetallicRoughness");
        JsonNode older = material.path("extensions").path("KHR_materials_pbrSpecularGlossiness");
        JsonNode factor = older.has("diffuseFactor") ? older.path("diffuseFactor") : usual.path("baseColorFactor");
        JsonNode shown = older.has("diffuseTexture") ? older.path("diffuseTexture") : usual.path("baseColorTexture");
        Optional<Srgb> colour = factor.isArray()
                ? Optional.of(tints.of(Srgb.of(new LinearRgb(
                        factor.path(0).asDouble(),
                        factor.path(1).asDouble(),
                        factor.path(2).asDouble()))))
                : Optional.empty();
        JsonNode laid = shown.path("extensions").path("KHR_texture_transform");
        int set = laid.path("texCoord").asInt(shown.path("texCoord").asInt(0));
        JsonNode spots = piece.path("attributes").path("TEXCOORD_" + set);
        Optional<Picture> picture =
                shown.isMissingNode() || spots.isMissingNode() ? Optional.empty() : picture(shown, called);
        return new Dress(colour, called, picture, laid, spots);
    }

    private Optional<Picture> picture(JsonNode shown, String material) {
        JsonNode texture = file.listed("textures", shown.path("index"));
        JsonNode sampler = file.listed("samplers", texture.path("sampler"));
        Picture.Tiling across = tiling(sampler.path("wrapS"));
        Picture.Tiling up = tiling(sampler.path("wrapT"));
        int source = texture.path("source").asInt(-1);
        return pictures.computeIfAbsent(source + " " + across + up, key -> {
            JsonNode image = file.said().path("images").path(source);
            String name = image.path("uri").asText("").startsWith("data:")
                    ? ""
                    : image.path("uri").asText("");
            Optional<Picture> read = pictures.size() < Picture.MOST_OF_A_FILE
                    ? file.picture(image).filter(this::isRoom).flatMap(bytes -> Picture.read(bytes, progress))
                    : Optional.empty();
            if (read.isEmpty()) {
                corners.unseen(Words.oneLine(name.isEmpty() ? "picture of " + material : name));
            }
            return read.map(p -> p.tiled(across, up));
        });
    }

    private boolean isRoom(byte[] picture) {
        pictured += picture.length;
        return pictured <= Picture.MOST;
    }

    private static Picture.Tiling tiling(JsonNode wrap) {
        return switch (wrap.asInt()) {
            case 33071 -> Picture.Tiling.CLAMP;
            case 33648 -> Picture.Tiling.MIRROR;
            default -> Picture.Tiling.WRAP;
        };
    }
}
