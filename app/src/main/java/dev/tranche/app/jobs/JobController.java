package dev.tranche.app.jobs;

import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;

@Controller
class JobController {
    private final Jobs jobs;
    private final Downloads downloads;

    JobController(Jobs jobs, Downloads downloads) {
        this.jobs = jobs;
        this.downloads = downloads;
    }

    @GetMapping("/jobs/{id}")
    String progress(@PathVariable String id, Model model, HttpServletResponse response) {
        return jobs.find(id).map(job -> JobPages.show(job, model, response)).orElse("jobs/progress :: lost");
    }

    @PostMapping("/jobs/{id}/cancel")
    String cancel(@PathVariable String id, Model model, HttpServletResponse response) {
        Job job = jobs.find(id).orElseThrow(() -> new Refusal("That work is over; reload the page."));
        job.cancel();
        return JobPages.show(job, model, response);
    }

    @GetMapping("/downloads/{id}")
    void download(@PathVariable String id, HttpServletResponse response) throws IOException {
        downloads.send(id, response);
    }
}
