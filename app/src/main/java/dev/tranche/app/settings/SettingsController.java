package dev.tranche.app.settings;

import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class SettingsController {
    private final Settings settings;
    private final FileStore files;
    private final TrancheProperties properties;

    SettingsController(Settings settings, FileStore files, TrancheProperties properties) {
        this.settings = settings;
        this.files = files;
        this.properties = properties;
    }

    @GetMapping("/settings")
    String show(Model model) throws IOException {
        model.addAttribute("taken", files.total());
        model.addAttribute("most", properties.largestTotal().toBytes());
        model.addAttribute("folder", properties.data());
        model.addAttribute("dayTimes", DayTime.values());
        model.addAttribute("settings", settings.now());
        return "settings/settings";
    }

    @PostMapping("/settings")
    String set(
            @RequestParam String currency,
            @RequestParam String tariff,
            @RequestParam String quiet,
            @RequestParam String zone,
            @RequestParam DayTime hours,
            Model model)
            throws IOException {
        settings.set(currency, tariff, quiet, zone, hours);
        model.addAttribute("kept", true);
        return show(model);
    }
}
