-- Whose site it is and where: the list finds sites by them. They follow the newest revision, whoever writes it (saving or a restore).
alter table site
    add column client  text,
    add column address text,
    -- One that the program brought along: it stands apart in the list.
    add column demo    boolean not null default false;

update site set client = newest.file #>> '{brief,client}', address = newest.file #>> '{brief,address}'
from revision newest
where newest.site_id = site.id and newest.number = site.revision;

update site set demo = true from revision first
where first.site_id = site.id and first.number = 1 and first.says = 'Demo site';

grant update (client, address, demo) on site to bright_angle_server;

create function note_client() returns trigger language plpgsql as $$
begin
    update site set client = new.file #>> '{brief,client}', address = new.file #>> '{brief,address}'
    where id = new.site_id and new.number >= revision;
    if new.number = 1 and new.says = 'Demo site' then
        update site set demo = true where id = new.site_id;
    end if;
    return null;
end
$$;
create trigger revision_names_client after insert on revision for each row execute function note_client();
