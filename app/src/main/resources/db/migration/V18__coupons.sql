-- Plans that are coupons: what each measures, and what was seen.
create table coupon (
    plan varchar(36) primary key references plan (id) on delete cascade,
    printer bigint not null references printer (id),
    kind varchar(20) not null,
    out_spool bigint not null,
    in_spool bigint not null,
    first_mark double precision not null,
    step double precision not null,
    marks integer not null,
    seen double precision
);
create index coupon_by_printer on coupon (printer);
