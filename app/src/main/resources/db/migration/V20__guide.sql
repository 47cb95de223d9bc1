-- How far the guided start has come; nothing where nobody has begun it.
create table guide (id integer primary key, stage varchar(20));
insert into guide (id) values (1);
