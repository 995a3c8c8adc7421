from django.contrib.auth.views import LoginView, LogoutView
from django.urls import path

urlpatterns = [
    path("sign-in/", LoginView.as_view(template_name="people/sign_in.html", redirect_authenticated_user=True), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
]
