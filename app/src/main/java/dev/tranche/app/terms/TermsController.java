package dev.tranche.app.terms;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

/** Words and what they mean: one where it stands, or all. */
@Controller
class TermsController {
    @GetMapping("/words")
    String all(Model model) {
        model.addAttribute("terms", Term.sorted());
        return "terms/terms";
    }

    @GetMapping("/words/{key}")
    String one(@PathVariable String key, Model model) {
        model.addAttribute("term", Term.at(key));
        return "terms/term :: meaning";
    }
}
