package dev.tranche.app.settings;

import java.time.ZoneId;
import java.util.TreeSet;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class SettingsController {
    private final Settings settings;

    SettingsController(Settings settings) {
        this.settings = settings;
    }

    @GetMapping("/settings")
    String show(Model model) {
        model.addAttribute("settings", settings.now());
        model.addAttribute("zones", new TreeSet<>(ZoneId.getAvailableZoneIds()));
        return "settings/settings";
    }

    @PostMapping("/settings")
    String set(
            @RequestParam String currency,
            @RequestParam String tariff,
            @RequestParam String quiet,
            @RequestParam String zone,
            Model model) {
        settings.set(currency, tariff, quiet, zone);
        model.addAttribute("kept", true);
        return show(model);
    }
}
