package dev.tranche.app.jobs;

import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.ui.Model;

/** How any page answers with a job: where to go if it is done, else its progress. */
public final class JobPages {
    private static final long SHORT = 400;

    private JobPages() {}

    /** The view to answer an htmx request with. */
    public static String show(Job job, Model model, HttpServletResponse response) {
        job.endsWithin(SHORT);
        Optional<String> page = job.destination();
        if (page.isEmpty()) {
            model.addAttribute("job", job);
            return "jobs/progress :: progress";
        }
        boolean here = page.get().equals(Job.Work.HERE);
        response.setHeader(here ? "HX-Refresh" : "HX-Redirect", here ? "true" : page.get());
        model.addAttribute("destination", page.get());
        return "jobs/progress :: done";
    }
}
