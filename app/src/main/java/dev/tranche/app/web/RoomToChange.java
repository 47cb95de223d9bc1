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
    /** Bytes: more than any disk has. */
    private static final long MOST = 1L << 60;

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
                    // What is sent lies there twice until it is kept.
                    room.require(2 * Math.max(0, Math.min(request.getContentLengthLong(), MOST)));
                }
                return true;
            }
        });
    }
}
