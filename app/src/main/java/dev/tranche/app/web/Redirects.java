package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Forms are sent by htmx, which follows a redirect only when it is told where to by a header of its own. */
@Component
class Redirects implements HandlerInterceptor, WebMvcConfigurer {
    private static final String REDIRECT = "redirect:";

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public void postHandle(HttpServletRequest request, HttpServletResponse response, Object handler, ModelAndView to) {
        String view = to == null ? null : to.getViewName();
        if (view != null && view.startsWith(REDIRECT) && request.getHeader("HX-Request") != null) {
            to.setView(new Elsewhere(view.substring(REDIRECT.length())));
        }
    }
}
