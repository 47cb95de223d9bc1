package dev.tranche.app.jobs;

import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.ui.Model;

/** How any page answers with a job: where to go if it is done, else its progress. */
public final class JobPages {
    /** Milliseconds. */
    private static final long SHORT = 400;

    private static final long LONGEST = 600_000;

    private JobPages() {}

    /** The view to answer an htmx request with. */
    public static String show(Job job, Model model, HttpServletResponse response) {
        job.endsWithin(SHORT);
        Optional<String> page = job.destination();
        model.addAttribute("job", job);
        if (page.isEmpty()) {
            return "jobs/progress :: progress";
        }
        model.addAttribute("destination", page.get());
        if (Downloads.isPlaceOf(page.get())) {
            return "jobs/progress :: made";
        }
        boolean here = page.get().equals(Job.Work.HERE);
        response.setHeader(here ? "HX-Refresh" : "HX-Redirect", here ? "true" : page.get());
        return "jobs/progress :: done";
    }

    /** The view to answer a link to a file with that is made first: whoever has no page to see progress on waits for it. */
    public static String fetch(Job job, HttpServletRequest request, Model model, HttpServletResponse response) {
        if (request.getHeader("HX-Request") != null) {
            return show(job, model, response);
        }
        if (!job.endsWithin(LONGEST)) {
            throw Refusal.of("%s goes on; ask for it once more in a while.", job.title());
        }
        return "forward:"
                + job.destination().orElseThrow(() -> new Refusal(job.failure().orElseThrow()));
    }
}
