-- A plan may be a variant of another, tried beside it.
alter table plan add column variant_of varchar(36) references plan (id);

-- What holds for every plan: one row.
create table settings (
    id int primary key check (id = 1),
    currency varchar(3),
    tariff decimal(10, 5),
    quiet varchar(200) not null,
    zone varchar(60)
);
insert into settings (id, quiet) values (1, '');
