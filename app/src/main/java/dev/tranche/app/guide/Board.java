package dev.tranche.app.guide;

import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Colours to press, each of which becomes a spool. */
@Component
class Board {
    /** What many shelves hold, in names of CSS colours. */
    static final List<Choice> COMMON = Stream.of(
                    "Black",
                    "Dim gray",
                    "Silver",
                    "White",
                    "Ivory",
                    "Tan",
                    "Saddle brown",
                    "Maroon",
                    "Crimson",
                    "Hot pink",
                    "Coral",
                    "Dark orange",
                    "Gold",
                    "Yellow green",
                    "Sea green",
                    "Teal",
                    "Sky blue",
                    "Royal blue",
                    "Navy",
                    "Indigo")
            .map(name -> new Choice(name, Srgb.parse(name).hex()))
            .toList();

    /** A colour that one press puts on the shelf. */
    public record Choice(String name, String hex) {}

    private final Shelf shelf;

    Board(Shelf shelf) {
        this.shelf = shelf;
    }

    /** A spool by its colour; without a name it is called as the colour is. */
    void shelve(String colour, String name, Material material) {
        Srgb chosen = Srgb.parse(colour);
        String called = name.isBlank() ? chosen.name().orElse(chosen.hex()) : name;
        shelf.add(Spool.full(shelf.free(called), material, chosen));
    }
}
