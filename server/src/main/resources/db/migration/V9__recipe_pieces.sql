-- What the recipes of a shot's histories have in common, named by what it holds.
create table recipe_piece (
  shot_id uuid not null,
  name char(22) character set ascii collate ascii_bin not null,
  content mediumtext not null,
  primary key (shot_id, name),
  foreign key (shot_id) references shot (id) on delete cascade
);
