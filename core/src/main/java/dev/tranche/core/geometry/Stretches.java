package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Envelope;

/** Parts of a straight line: they ascend, and none touches another. */
public final class Stretches {
    private final Course course;
    private final List<Span> spans;
    private final Envelope[] boxes;
    private final Envelope box = new Envelope();

    private Stretches(Course course, List<Span> spans) {
        this.course = course;
        this.spans = spans;
        this.boxes = new Envelope[spans.size()];
        for (int i = 0; i < boxes.length; i++) {
            boxes[i] = new Envelope(
                    course.at(spans.get(i).from()), course.at(spans.get(i).to()));
            box.expandToInclude(boxes[i]);
        }
    }

    /**
     * All of the line between two places on it.
     *
     * @param from in steps of the line
     * @param to above {@code from}
     */
    public static Stretches of(Course course, double from, double to) {
        return new Stretches(course, List.of(new Span(from, to)));
    }

    Course course() {
        return course;
    }

    /** In steps of the line. */
    public List<Span> spans() {
        return spans;
    }

    public boolean isEmpty() {
        return spans.isEmpty();
    }

    /** All of them together, mm. */
    public double length() {
        double steps = 0;
        for (Span span : spans) {
            steps += span.length();
        }
        return steps * course.length();
    }

    /** Whether the box round any of them meets another. */
    boolean meet(Envelope other) {
        if (!box.intersects(other)) {
            return false;
        }
        for (Envelope one : boxes) {
            if (one.intersects(other)) {
                return true;
            }
        }
        return false;
    }

    /** What of them runs through areas; a line through a corner is taken as just to the left of it. */
    public Stretches through(Crossed areas) {
        List<Span> inside = areas.along(this);
        List<Span> common = new ArrayList<>(inside.size());
        for (Span a : spans) {
            for (Span b : inside) {
                double from = Math.max(a.from(), b.from());
                double to = Math.min(a.to(), b.to());
                if (from < to) {
                    common.add(new Span(from, to));
                }
            }
        }
        return new Stretches(course, common);
    }

    /** What of them is none of others on the same line. */
    public Stretches less(Stretches others) {
        if (others.isEmpty()) {
            return this;
        }
        List<Span> left = spans;
        for (Span other : others.spans) {
            List<Span> next = new ArrayList<>(left.size() + 1);
            for (Span span : left) {
                if (other.to() <= span.from() || other.from() >= span.to()) {
                    next.add(span);
                    continue;
                }
                if (other.from() > span.from()) {
                    next.add(new Span(span.from(), other.from()));
                }
                if (other.to() < span.to()) {
                    next.add(new Span(other.to(), span.to()));
                }
            }
            left = next;
        }
        return new Stretches(course, left);
    }
}
