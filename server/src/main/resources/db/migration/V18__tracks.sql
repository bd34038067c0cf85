-- Where followed points are, by where they were put by hand. They can be made again.
create table track (
  id uuid primary key,
  shot_id uuid not null,
  name char(64) character set ascii collate ascii_bin not null,
  puts mediumtext not null,
  done double not null,
  content_hash char(64) character set ascii collate ascii_bin,
  fault varchar(500),
  touched timestamp(6) not null,
  unique key track_name (shot_id, name),
  key track_content (content_hash),
  foreign key (shot_id) references shot (id) on delete cascade
);
