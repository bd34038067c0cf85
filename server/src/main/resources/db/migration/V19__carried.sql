-- An eye is found again by the face around it; a subject that is kept has a mask at every frame.
alter table track add column kind varchar(10) not null default 'POINT';
