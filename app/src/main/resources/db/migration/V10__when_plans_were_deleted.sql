alter table plan add column deleted_at timestamp(9) with time zone;
update plan set deleted_at = changed where deleted;
alter table plan drop column deleted;
