package dev.tranche.core.format;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Reads AMF: objects of volumes, where its constellations put them, in the colours of triangles, else of corners, volumes,
 * objects or materials. What no constellation puts anywhere stands where its corners are. Triangles are taken as flat;
 * colours that are formulas, and textures, are passed over.
 *
 * <p>Source: ISO/ASTM 52915 "Specification for Additive Manufacturing File Format (AMF)", version 1.2, from memory.
 */
final class Amf {
    private static final int DEEPEST = 64;
    private static final int MOST_PLACED = 100_000;

    private final AmfFile file;
    private final Progress progress;
    private final Corners corners = new Corners();
    private int things;
    private int placed;

    private Amf(AmfFile file, Progress progress) {
        this.file = file;
        this.progress = progress;
    }

    static boolean is(byte[] head) {
        return Signature.isXml("amf", head);
    }

    static PartedModel read(InputStream in, long size, Progress progress) {
        Amf amf = new Amf(AmfFile.read(in, size, progress), progress);
        amf.build();
        if (amf.corners.isEmpty()) {
            throw new Refusal("The AMF file holds no triangles; export the model again.");
        }
        return amf.corners.model(progress);
    }

    private void build() {
        Set<String> inside = new HashSet<>();
        file.constellations().values().forEach(c -> c.forEach(i -> inside.add(i.what())));
        List<AmfFile.Instance> items = new ArrayList<>();
        file.objects().keySet().stream()
                .filter(o -> !inside.contains(o))
                .forEach(o -> items.add(new AmfFile.Instance(o, Affine.UNMOVED)));
        file.constellations().forEach((name, instances) -> {
            if (!inside.contains(name)) {
                items.addAll(instances);
            }
        });
        for (int i = 0; i < items.size(); i++) {
            corners.item(i);
            place(items.get(i), Affine.UNMOVED, 0);
        }
    }

    private void place(AmfFile.Instance instance, Affine within, int depth) {
        String what = instance.what();
        if (depth > DEEPEST) {
            throw Refusal.of(
                    "“%s” of the AMF file is nested over %d deep, or holds itself; export it again.",
                    Words.quoted(what), DEEPEST);
        }
        if (++placed > MOST_PLACED) {
            throw Refusal.of("The AMF file places over %,d objects; export it with fewer.", MOST_PLACED);
        }
        progress.beat();
        Affine at = instance.place().then(within);
        AmfFile.Thing thing = file.objects().get(what);
        List<AmfFile.Instance> instances = file.constellations().get(what);
        if (thing != null) {
            thing.volumes().forEach(volume -> build(thing, volume, at));
        } else if (instances != null) {
            instances.forEach(i -> place(i, at, depth + 1));
        } else {
            throw Refusal.of(
                    "The AMF file places object “%s”, which is not in it; export it again.", Words.quoted(what));
        }
    }

    private void build(AmfFile.Thing thing, AmfFile.Volume volume, Affine at) {
        int number = ++things;
        String material = file.material(volume).map(AmfFile.Material::name).orElse("");
        String name = Stream.of(volume.name(), thing.name(), material)
                .filter(n -> !n.isEmpty())
                .findFirst()
                .orElse("");
        for (int t = 0; t < volume.triangles(); t++) {
            corners.labelled(name, file.colour(volume, t), material, number);
            for (int c = 0; c < 3; c++) {
                int corner = volume.corner(t, c);
                double x = thing.at(corner, 0);
                double y = thing.at(corner, 1);
                double z = thing.at(corner, 2);
                corners.add(at.x(x, y, z), at.y(x, y, z), at.z(x, y, z), name.isEmpty() ? "The AMF file" : name);
            }
        }
    }
}
