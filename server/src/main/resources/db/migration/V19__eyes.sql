-- An eye is found again by the face around it.
alter table track add column eye boolean not null default false;
