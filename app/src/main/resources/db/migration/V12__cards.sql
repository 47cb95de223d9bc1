-- Figures of plans, kept with what they were reckoned from.
create table card (
    plan varchar(36) primary key references plan (id) on delete cascade,
    edition bigint not null,
    printer bigint not null,
    machine varchar(80) not null,
    world varchar(80) not null,
    figures character large object not null
);
