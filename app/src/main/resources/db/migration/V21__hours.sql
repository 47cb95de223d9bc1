-- How the hours of a day are counted; nothing is 24.
alter table settings add column hours varchar(20);
