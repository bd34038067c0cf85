-- Stretches that a node is rendering now. It renews its time with the frames it has made; a node that is lost lets it run out.
create table stretch_taken (
    name  char(64) character set ascii collate ascii_bin not null primary key,
    until datetime(6) not null
);
