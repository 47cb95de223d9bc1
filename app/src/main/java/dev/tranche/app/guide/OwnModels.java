package dev.tranche.app.guide;

import dev.tranche.app.jobs.Job;
import java.util.List;

/** Models that come with Tranche, for somebody who has none at hand. */
public interface OwnModels {
    /** A model that can be had, and what it shows. */
    record Model(String key, String name, String shows) {}

    List<Model> models();

    /** Makes a plan of one, with a file that is sliced already; ends on its desk. */
    Job begin(String key);
}
