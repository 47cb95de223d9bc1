package dev.tranche.app.web;

import dev.tranche.app.storage.Room;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Nothing is changed while the disk has no room for it. */
@Configuration
class RoomToChange implements WebMvcConfigurer {
    private final Room room;

    RoomToChange(Room room) {
        this.room = room;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new HandlerInterceptor() {
            @Override
            public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
                if (request.getMethod().equals("POST")) {
                    room.require();
                }
                return true;
            }
        });
    }
}
