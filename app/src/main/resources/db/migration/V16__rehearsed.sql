-- How the last rehearsal of a plan ended, and what it was of.
create table rehearsed (
    plan varchar(36) primary key references plan (id) on delete cascade,
    changed bigint not null,
    machine varchar(80) not null,
    clean boolean not null,
    summary varchar(400) not null,
    at timestamp with time zone not null
);
