-- Stored files that nothing named when it was last looked, and since when.
create table unnamed_file (
  hash char(64) character set ascii collate ascii_bin not null primary key,
  since timestamp(6) not null
);

-- Rendered stretches belong to a shot and go with it. They can be rendered again.
delete from stretch;

alter table stretch
  add column shot_id uuid not null,
  add foreign key (shot_id) references shot (id) on delete cascade;
