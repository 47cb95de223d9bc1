package dev.tranche.core.format;

import dev.tranche.core.format.ThreeMfPart.ObjectMesh;
import dev.tranche.core.format.ThreeMfPart.Placed;
import dev.tranche.core.format.ThreeMfPart.Said;
import dev.tranche.core.format.ThreeMfPart.Thing;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Puts what a 3MF archive builds where it says, out of one model part or several. */
final class ThreeMfBuild {
    private static final int DEEPEST = 64;
    private static final int MOST_PLACED = 100_000;

    /** By the names of the archive, in small letters: to an archive of this kind capitals make no difference. */
    private final Map<String, ThreeMfPart> parts = new HashMap<>();

    /** Pictures as the archive has them, and read. */
    private final Map<String, byte[]> packed = new HashMap<>();

    private final Map<String, Optional<Picture>> pictures = new HashMap<>();
    private final Map<ThreeMfPictures.Texture, Optional<Picture>> tiled = new HashMap<>();
    private final Corners corners = new Corners();
    private int things;
    private int placed;
    private final Progress progress;

    ThreeMfBuild(Progress progress) {
        this.progress = progress;
    }

    void part(String name, ThreeMfPart part) {
        parts.put(key(name), part);
    }

    void picture(String name, byte[] bytes) {
        packed.put(key(name), bytes);
    }

    /** @param start the name of the part it begins with; the only one if nothing is said */
    PartedModel model(Optional<String> start) {
        if (parts.isEmpty()) {
            throw new Refusal("The archive holds no 3D model part; it is no 3MF file. Choose the model itself.");
        }
        ThreeMfPart first = start.map(s -> parts.get(key(s)))
                .orElseGet(() -> parts.size() == 1 ? parts.values().iterator().next() : null);
        if (first == null) {
            throw new Refusal("The archive does not say which part it begins with; export the 3MF file again.");
        }
        List<Placed> items = first.items();
        if (items.isEmpty()) {
            throw new Refusal("The 3MF file lists nothing to build; export it with the model on its plate.");
        }
        for (Placed item : items) {
            place(
                    first,
                    item,
                    item.place(),
                    0,
                    "",
                    (p, mesh, said, name, place, what) -> corners.foresee(mesh.triangles()));
        }
        placed = 0;
        for (int i = 0; i < items.size(); i++) {
            progress.beat();
            corners.item(i);
            place(first, items.get(i), items.get(i).place(), 0, "", this::build);
        }
        if (corners.isEmpty()) {
            throw new Refusal("What the 3MF file builds holds no triangles; export the model again.");
        }
        return corners.model(progress);
    }

    private static String key(String name) {
        return name.replaceFirst("^/", "").toLowerCase(Locale.ROOT);
    }

    /** What is done with a mesh that is placed; {@code what} says which it is. */
    private interface Use {
        void of(ThreeMfPart part, ObjectMesh mesh, Said said, String name, Affine place, String what);
    }

    /**
     * @param from the part that says it
     * @param called what the object that holds this one is called
     */
    private void place(ThreeMfPart from, Placed what, Affine place, int depth, String called, Use use) {
        if (depth > DEEPEST) {
            throw Refusal.of(
                    "Object %d of the 3MF file is nested over %d deep, or holds itself; export it again.",
                    what.object(), DEEPEST);
        }
        if (++placed > MOST_PLACED) {
            throw Refusal.of("The 3MF file places over %d objects; export it with fewer.", MOST_PLACED);
        }
        ThreeMfPart part =
                what.path().isEmpty() ? from : parts.get(key(what.path().get()));
        Thing thing = Optional.ofNullable(part)
                .flatMap(p -> p.object(what.object()))
                .orElseThrow(() -> Refusal.of(
                        "The 3MF file builds object %d%s, which is not in it; export it again.",
                        what.object(),
                        what.path()
                                .map(path -> " of “" + Words.quoted(path.replaceFirst("^/", "")) + "”")
                                .orElse("")));
        Said of = thing.said();
        if (of.support()) {
            return;
        }
        String name = of.name().isEmpty() ? called : of.name();
        thing.mesh().ifPresent(mesh -> use.of(part, mesh, of, name, place, "Object " + what.object()));
        for (Placed component : thing.inside()) {
            place(part, component, component.place().then(place), depth + 1, name, use);
        }
    }

    private void build(ThreeMfPart part, ObjectMesh mesh, Said of, String name, Affine place, String called) {
        int thing = ++things;
        double unit = part.unit();
        for (int t = 0; t < mesh.triangles(); t++) {
            ThreeMfPictures.Group shown = part.picture(mesh, t, of).orElse(null);
            Optional<Picture> picture = shown == null ? Optional.empty() : picture(shown);
            if (shown != null && picture.isEmpty()) {
                corners.unseen(Words.oneLine(ObjLibrary.file(shown.texture().path())));
            }
            if (picture.isPresent()) {
                corners.pictured(name, picture.get(), thing);
            } else {
                ThreeMfMaterials.Material material = part.material(mesh, t, of);
                corners.labelled(name.isEmpty() ? material.name() : name, material.colour(), material.name(), thing);
            }
            for (int c = 0; c < 3; c++) {
                corner(unit * mesh.at(t, c, 0), unit * mesh.at(t, c, 1), unit * mesh.at(t, c, 2), place, called);
                if (picture.isPresent()) {
                    int at = part.place(mesh, t, c, of);
                    corners.shows(shown.u(at), shown.v(at));
                }
            }
        }
    }

    /** Each is read once, and tiled once for each way of doing so. */
    private Optional<Picture> picture(ThreeMfPictures.Group shown) {
        return tiled.computeIfAbsent(shown.texture(), texture -> pictures.computeIfAbsent(
                        key(texture.path()), path -> Optional.ofNullable(packed.get(path))
                                .filter(p -> pictures.size() < Picture.MOST_OF_A_FILE)
                                .flatMap(p -> Picture.read(p, progress)))
                .map(picture -> picture.tiled(texture.across(), texture.up())));
    }

    private void corner(double x, double y, double z, Affine place, String called) {
        corners.add(place.x(x, y, z), place.y(x, y, z), place.z(x, y, z), called);
    }
}
