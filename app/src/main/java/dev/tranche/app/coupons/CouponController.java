package dev.tranche.app.coupons;

import dev.tranche.app.plans.Plans;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.PlanPages;
import dev.tranche.core.coupon.Coupon;
import dev.tranche.core.plan.SpoolId;
import java.io.IOException;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Coupons of a printer, and what is read off one. */
@Controller
class CouponController {
    private final Coupons coupons;
    private final CouponViews views;
    private final Plans plans;
    private final PlanPages pages;

    CouponController(Coupons coupons, CouponViews views, Plans plans, PlanPages pages) {
        this.coupons = coupons;
        this.views = views;
        this.plans = plans;
        this.pages = pages;
    }

    @GetMapping("/printers/{id}/coupons")
    String all(@PathVariable long id, Model model) {
        return views.all(id, model);
    }

    @PostMapping("/printers/{id}/coupons")
    String make(
            @PathVariable long id,
            @RequestParam Coupon.Kind kind,
            @RequestParam Optional<Long> out,
            @RequestParam long in,
            @RequestParam Optional<Long> third)
            throws IOException {
        return "redirect:/plans/"
                + coupons.make(id, kind, new SpoolId(out.orElse(in)), new SpoolId(in), third.map(SpoolId::new))
                        .id() + "/coupon";
    }

    @GetMapping("/plans/{id}/coupon")
    String one(@PathVariable String id, Model model) {
        return pages.show(id, "coupon", model, work -> views.one(work, model));
    }

    @PostMapping("/plans/{id}/coupon")
    String seen(@PathVariable String id, @RequestParam String mark, Model model) {
        coupons.see(plans.get(id), Numbers.decimal("mark", mark));
        return one(id, model);
    }
}
