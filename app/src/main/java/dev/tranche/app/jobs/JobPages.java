package dev.tranche.app.jobs;

import jakarta.servlet.http.HttpServletResponse;
import org.springframework.ui.Model;

/** How any page answers with a job: where to go if it is done, else its progress. */
public final class JobPages {
    private static final long SHORT = 400;

    private JobPages() {}

    /** The view to answer an htmx request with. */
    public static String show(Job job, Model model, HttpServletResponse response) {
        job.endsWithin(SHORT);
        job.destination().ifPresent(page -> {
            if (page.equals(Job.Work.HERE)) {
                response.setHeader("HX-Refresh", "true");
            } else {
                response.setHeader("HX-Redirect", page);
            }
        });
        model.addAttribute("job", job);
        return "jobs/progress :: progress";
    }
}
