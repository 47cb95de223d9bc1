package dev.tranche.app.library;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface CardRepository extends JpaRepository<CardEntity, String> {
    /** A card without its picture. */
    record Kept(String plan, long edition, long printer, String machine, String world, String figures) {}

    @Query(
            "select new dev.tranche.app.library.CardRepository$Kept(c.plan, c.edition, c.printer, c.machine, c.world, c.figures) "
                    + "from CardEntity c where c.plan in :plans")
    List<Kept> kept(Collection<String> plans);

    /** What lists are sorted by. */
    record Sorted(String plan, int swaps, double seconds) {}

    @Query("select new dev.tranche.app.library.CardRepository$Sorted(c.plan, c.swaps, c.seconds) from CardEntity c")
    List<Sorted> sorted();

    @Query("select c.picture from CardEntity c where c.plan = :plan")
    Optional<byte[]> picture(String plan);
}
