package dev.tranche.app.library;

import dev.tranche.app.exchange.Choosing;
import dev.tranche.app.exchange.Offers;
import dev.tranche.app.jobs.JobPages;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Where one chooses among models that came in one archive. */
@Controller
@RequestMapping("/offers/{id}")
class OfferController {
    private final Offers offers;
    private final Choosing choosing;

    OfferController(Offers offers, Choosing choosing) {
        this.offers = offers;
        this.choosing = choosing;
    }

    @GetMapping
    String show(@PathVariable String id, Model model) {
        model.addAttribute("offer", offers.get(id));
        return "library/offer";
    }

    @GetMapping(value = "/{index}.png", produces = MediaType.IMAGE_PNG_VALUE)
    @ResponseBody
    byte[] picture(@PathVariable String id, @PathVariable int index) {
        return offers.get(id).candidates().get(index).picture();
    }

    @PostMapping
    String take(
            @PathVariable String id,
            @RequestParam(defaultValue = "") List<Integer> model,
            @RequestParam(defaultValue = "false") Boolean together,
            Model view,
            HttpServletResponse response) {
        return JobPages.show(choosing.take(offers.get(id), model, together), view, response);
    }
}
