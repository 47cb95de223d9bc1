package dev.tranche.app.backup;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.JobPages;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.web.Attachment;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;

/** The whole house out and in: from the settings, and by command. */
@Controller
class BackupController {
    /** s */
    private static final int PATIENCE = 3600;

    private final Backups backups;
    private final Jobs jobs;
    private final TemporaryFiles temporary;

    BackupController(Backups backups, Jobs jobs, TemporaryFiles temporary) {
        this.backups = backups;
        this.jobs = jobs;
        this.temporary = temporary;
    }

    @GetMapping({"/backup.zip", "/api/v1/backup"})
    void take(HttpServletResponse response) throws IOException {
        Attachment.begin(response, backups.name(), "application/zip");
        backups.write(response.getOutputStream());
    }

    @PostMapping("/backup/restore")
    String restore(@RequestParam MultipartFile file, Model model, HttpServletResponse response) throws IOException {
        Path copy = temporary.copy("backup", file);
        Job job = jobs.start("Taking the backup back", progress -> {
            try {
                return "/settings?restored=" + backups.restore(copy, progress).getFileName();
            } finally {
                Files.deleteIfExists(copy);
            }
        });
        return JobPages.show(job, model, response);
    }

    /** By command: answers where what was here before is kept, or a sentence. */
    @PostMapping(value = "/api/v1/restore", produces = "text/plain;charset=UTF-8")
    @ResponseBody
    String restore(@RequestParam(required = false) MultipartFile file, HttpServletResponse response)
            throws IOException {
        if (file == null) {
            response.setStatus(422);
            return "No backup came with this; send it as the part “file” (multipart/form-data).\n";
        }
        Path copy = temporary.copy("backup", file);
        try {
            Path before = jobs.await("Taking the backup back", PATIENCE, progress -> backups.restore(copy, progress));
            return "Taken back. What was here before is kept in " + before.toAbsolutePath() + "\n";
        } catch (Refusal refusal) {
            response.setStatus(422);
            return refusal.getMessage() + "\n";
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}
